/*
 * A take: what is played while the band plays the line. By MIDI it is set against what is written once it has come to its
 * end; what the ear notices is judged as it is played.
 */
import { ref, shallowRef, watch, type Ref } from 'vue'
import { answer, api, type HeardNote, type LineBody, type PlayedSpan, type TakeVerdicts } from '../../api/client'
import { Listening, type Hearer, type Whole, type Wish } from '../../listen/listening'
import { Passes, type Noticed } from '../../listen/passes'
import type { Verdict } from '../../listen/verdicts'

interface Note {
  midi: number
  channel: number
  at: number
}

/** Where the band stands at a time of the page: its tick, and which pass of the loop it is. */
export type Where = (at: number) => { tick: number; pass: number } | undefined

export type Listen = (wish: Wish, to: Hearer) => Pick<Listening, 'notice' | 'end' | 'drop'>

export function useTake(
  line: Ref<LineBody | undefined>,
  playing: () => boolean,
  where: Where,
  tempo: () => number,
  /** What the band plays meanwhile, and how well the player is known; and who is told that anew. */
  beside: () => Pick<Wish, 'band' | 'known'> = () => ({}),
  heardOf?: (strokes: number) => void,
  listen: Listen = (wish, to) => new Listening(wish, to),
  /** Whether it was stopped because it hurts: then nothing is judged. */
  hurts: () => boolean = () => false,
) {
  const take = shallowRef<TakeVerdicts>()
  /** While it is listened to: what each note was, by its number. */
  const live = shallowRef<Map<number, Verdict>>()
  const trouble = ref('')
  /** The last take as it was heard and written down, to be kept. */
  const whole = shallowRef<Whole>()
  /** What was played last, however it was heard, to be noted. */
  const played = shallowRef<{ heard: HeardNote[]; span?: PlayedSpan }>()
  let heard: (HeardNote & { midi: number; channel: number; open: boolean })[] = []
  let pass = 0

  async function judge(notes: HeardNote[], span?: PlayedSpan, of = line.value) {
    if (!of) return
    try {
      take.value = await answer(
        api.POST('/api/lines/judge', { body: { line: of, tempo: Math.round(tempo()), heard: notes, played: span } }),
      )
    } catch (e) {
      trouble.value = e instanceof Error ? e.message : String(e)
    }
  }
  /** What a simulated player makes of the line. */
  function simulated() {
    const seed = Math.floor(Math.random() * 2 ** 31)
    const how = { wrong: 0.06, late: 0.15, missed: 0.02, bad: 0.2, spread: 14, tendency: 8, seed }
    return answer(api.POST('/api/lines/simulate', { body: { line: line.value!, ...how } }))
  }
  /** What was played comes to its end. */
  function close(over: boolean) {
    const notes = heard.map(({ at, length, pitch }) => ({ at, length, pitch }))
    heard = []
    if (!notes.length) return
    const span = passes.span(pass, over)
    void judge(notes, span)
    played.value = { heard: notes, span }
  }
  const passes = new Passes(
    () =>
      line.value &&
      listen(
        { line: line.value, tempo: Math.round(tempo()), ...beside() },
        {
          inTune: (strokes) => heardOf?.(strokes),
          verdicts: (list) => (live.value = new Map([...(live.value ?? []), ...list.map(verdictOf)])),
          trouble: (says) => (trouble.value = says),
        },
      ),
    (w, pass, span) => {
      live.value = undefined
      if (!w.take) return
      take.value = w.take
      whole.value = { ...w, pass }
      played.value = { heard: w.heard, span }
    },
  )
  watch(playing, (now) => {
    if (now) {
      take.value = whole.value = undefined
      passes.anew()
    } else if (hurts()) {
      heard = []
      passes.drop()
    } else {
      close(false)
      passes.close()
    }
  })
  watch(line, () => {
    take.value = live.value = whole.value = undefined // another line is another take
    passes.drop()
  })

  return {
    take,
    live,
    trouble,
    running: playing,
    noticed: (list: Noticed[], now: { tick: number; pass: number }) => passes.noticed(list, now),
    at: (now: { tick: number; pass: number }) => passes.at(now),
    whole,
    played,
    struck({ midi, channel, at }: Note) {
      const here = where(at)
      if (!here) return
      if (here.pass !== pass) close(true)
      pass = here.pass
      passes.at(here)
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
    simulated,
    /** A simulated player plays the line at once. */
    async simulate() {
      if (!line.value) return
      try {
        await judge(await simulated())
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
