/* A take: what is played while the band plays the line, set against what is written once it has come to its end. */
import { ref, shallowRef, watch, type Ref } from 'vue'
import { answer, api, type HeardNote, type LineBody, type TakeVerdicts } from '../../api/client'
import type { Verdict } from './verdicts'

interface Note {
  midi: number
  channel: number
  at: number
}

/** Where the band stands at a time of the page: its tick, and which pass of the loop it is. */
export type Where = (at: number) => { tick: number; pass: number } | undefined

export function useTake(line: Ref<LineBody | undefined>, playing: () => boolean, where: Where, tempo: () => number) {
  const take = shallowRef<TakeVerdicts>()
  const trouble = ref('')
  let heard: (HeardNote & { midi: number; channel: number; open: boolean })[] = []
  let pass = 0

  async function judge(notes: HeardNote[], of = line.value) {
    if (!of) return
    try {
      take.value = await answer(
        api.POST('/api/lines/judge', { body: { line: of, tempo: Math.round(tempo()), heard: notes } }),
      )
    } catch (e) {
      trouble.value = e instanceof Error ? e.message : String(e)
    }
  }
  /** What was played comes to its end. */
  function close() {
    const notes = heard.map(({ at, length, pitch }) => ({ at, length, pitch }))
    heard = []
    if (notes.length) void judge(notes)
  }
  watch(playing, (now) => {
    if (now) take.value = undefined
    else close()
  })
  watch(line, () => (take.value = undefined)) // another line is another take

  return {
    take,
    trouble,
    running: playing,
    struck({ midi, channel, at }: Note) {
      const here = where(at)
      if (!here) return
      if (here.pass !== pass) close()
      pass = here.pass
      heard.push({ at: here.tick, length: 0, pitch: midi, midi, channel, open: true })
    },
    released({ midi, channel, at }: Note) {
      const note = heard.findLast((n) => n.open && n.midi === midi && n.channel === channel)
      const here = where(at)
      if (!note || !here) return
      note.length = Math.max(0, here.tick - note.at)
      note.open = false
    },
    /** A note is heard where it came to: the furthest that it was bent. */
    bent({ channel, by }: { channel: number; by: number }) {
      const note = heard.findLast((n) => n.open && n.channel === channel)
      if (note && Math.abs(by) > Math.abs(note.pitch - note.midi)) note.pitch = note.midi + by
    },
    /** What a simulated player makes of the line. */
    async simulate() {
      if (!line.value) return
      const seed = Math.floor(Math.random() * 2 ** 31)
      const how = { wrong: 0.06, late: 0.15, missed: 0.02, bad: 0.2, spread: 14, tendency: 8, seed }
      try {
        await judge(await answer(api.POST('/api/lines/simulate', { body: { line: line.value, ...how } })))
      } catch (e) {
        trouble.value = e instanceof Error ? e.message : String(e)
      }
    },
    clear: () => (take.value = undefined),
  }
}
export type Take = ReturnType<typeof useTake>

/** What stands under the notes after a take; what was not heard is grey, never red. */
export function takenVerdicts(take: TakeVerdicts): Map<number, Verdict> {
  const out = new Map<number, Verdict>()
  for (const v of take.verdicts) {
    const kind: Verdict['kind'] =
      v.is === 'not heard'
        ? 'unheard'
        : v.is !== 'right' || (v.bend && v.bend !== 'true')
          ? 'missed'
          : v.when === 'late'
            ? 'late'
            : v.when === 'early'
              ? 'early'
              : 'landed'
    out.set(v.note, { kind, says: v.says })
  }
  return out
}
