/*
 * A take: what is played while the band plays the line. By MIDI it is set against what is written once it has come to its
 * end; what the ear notices is judged as it is played.
 */
import { ref, shallowRef, watch, type Ref } from 'vue'
import { answer, api, type HeardNote, type LineBody, type TakeVerdicts } from '../../api/client'
import { Listening, type Hearer, type Timed, type Wish } from '../../listen/listening'
import type { Verdict } from './verdicts'

interface Note {
  midi: number
  channel: number
  at: number
}

/** Where the band stands at a time of the page: its tick, and which pass of the loop it is. */
export type Where = (at: number) => { tick: number; pass: number } | undefined

/** What the ear noticed at a moment of a pass. */
export type Noticed = Timed & { pass: number }
export type Listen = (wish: Wish, to: Hearer) => Pick<Listening, 'notice' | 'end' | 'drop'>

/** Milliseconds after the band has stopped in which the last note may still be weighed. */
const rings = 250

export function useTake(
  line: Ref<LineBody | undefined>,
  playing: () => boolean,
  where: Where,
  tempo: () => number,
  listen: Listen = (wish, to) => new Listening(wish, to),
) {
  const take = shallowRef<TakeVerdicts>()
  /** While it is listened to: what each note was, by its number. */
  const live = shallowRef<Map<number, Verdict>>()
  const trouble = ref('')
  let ears: { pass: number; listening: ReturnType<Listen> } | undefined
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
  /** A pass that is listened to is over: what it was as a whole. */
  async function judged() {
    const { listening } = ears!
    ears = undefined
    const whole = await listening.end()
    live.value = undefined
    if (whole.take) take.value = whole.take
  }
  watch(playing, (now) => {
    if (now) take.value = undefined
    else {
      close()
      if (ears) setTimeout(() => ears && void judged(), rings)
    }
  })
  watch(line, () => {
    take.value = live.value = undefined // another line is another take
    ears?.listening.drop()
    ears = undefined
  })
  function attend(pass: number) {
    if (ears && ears.pass !== pass) void judged()
    if (!line.value) return undefined
    ears ??= {
      pass,
      listening: listen(
        { line: line.value, tempo: Math.round(tempo()) },
        {
          verdicts: (list) => (live.value = new Map([...(live.value ?? []), ...list.map(verdictOf)])),
          trouble: (says) => (trouble.value = says),
        },
      ),
    }
    return ears.listening
  }

  return {
    take,
    live,
    trouble,
    running: playing,
    /** What the ear noticed, and where the band is. What belongs to the pass before is told to that one. */
    noticed(list: Noticed[], now: { tick: number; pass: number }) {
      for (const pass of new Set([...list.map((o) => o.pass), now.pass].toSorted((a, b) => a - b)))
        if (!ears || pass >= ears.pass)
          attend(pass)?.notice(
            list.filter((o) => o.pass === pass),
            now.pass === pass ? now.tick : Infinity,
          )
    },
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

/** What stands under a note that was played; what was not heard is grey, never red. */
function verdictOf(v: TakeVerdicts['verdicts'][number]): [number, Verdict] {
  const missed = v.is !== 'right' || (!!v.bend && v.bend !== 'true')
  const timed: Verdict['kind'] = v.when === 'late' || v.when === 'early' ? v.when : 'landed'
  return [v.note, { kind: v.is === 'not heard' ? 'unheard' : missed ? 'missed' : timed, says: v.says }]
}
export const takenVerdicts = (take: TakeVerdicts): Map<number, Verdict> => new Map(take.verdicts.map(verdictOf))
