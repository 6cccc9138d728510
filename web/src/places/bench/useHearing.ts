import { computed, watch } from 'vue'
import { phrase } from '../../band/audition'
import { useBand } from '../../band/useBand'
import type { Move, Place } from '../../api/client'
import { written } from '../../neck/region'
import { nearest, same } from './moves'
import type { Bench } from './useBench'

/** Hearing what is on the neck: a note held, a run walked through, a crossing, the thread. */
export function useHearing(bench: Bench, read: (p: Place) => Promise<void>) {
  const band = useBand()
  const { data, step, chord, coming, run, targets, at, window } = bench
  const midi = (p: Place) => data.value!.instrument.midi[p.string - 1]! + p.fret
  const how = () => {
    const c = data.value!.chart
    return { key: c.key, beats: c.beats, feel: c.feel }
  }
  const bars = (symbol: string, beats: number) =>
    `| ${Array(Math.max(1, Math.ceil(beats / data.value!.chart.beats)))
      .fill(symbol)
      .join(' | ')} |`

  /** Every note of the run for two beats, over its chord. */
  function walk() {
    const notes = run.value?.notes ?? []
    if (!notes.length || !chord.value) return
    void band.hear({
      title: `the run of ${chord.value.symbol}, note by note`,
      ...phrase({
        ...how(),
        text: bars(chord.value.symbol, notes.length * 2),
        lead: notes.map((n) => ({ midi: n.midi, beats: 2 })),
      }),
      cues: notes.map((n, i) => ({ beat: i * 2, length: 2, place: { string: n.string, fret: n.fret } })),
    })
  }

  /** This tone for a bar, then that one, on the change. */
  function cross(m: Move) {
    const to = nearest(m, targets.value[at.value])
    const p = m.places.find((x) => to && same(x.to, to)) ?? m.places[0]
    const next = coming.value[0]
    if (!p || !next || !step.value) return
    const beats = data.value!.chart.beats
    const [a, b] = [chord.value!.symbol, data.value!.chords[next.chord]!.symbol]
    void band.hear({
      title: `${m.from.note} to ${m.to.note}, ${a} to ${b}`,
      ...phrase({ ...how(), text: `| ${a} | ${b} |`, lead: [p.from, p.to].map((at) => ({ midi: midi(at), beats })) }),
      cues: [
        { beat: 0, length: beats, place: p.from },
        { beat: beats, length: beats, place: p.to },
      ],
    })
  }

  /** One place, held over the chord in hand. */
  function rest(p: Place) {
    const beats = data.value!.chart.beats
    void band.hear({
      title: `${p.string}:${p.fret} held over ${chord.value!.symbol}`,
      ...phrase({
        ...how(),
        text: bars(chord.value!.symbol, beats * 2),
        lead: [{ midi: midi(p), beats: beats * 2 - 1 }, { beats: 1 }],
      }),
      cues: [{ beat: 0, length: beats * 2, place: p }],
    })
  }

  const asked = () => {
    const { low, high, strings } = window.value!
    return { low, high, strings: written(strings) }
  }
  const thread = () => void band.hearThread(band.threadHeard ? undefined : asked())
  // The thread that is heard is the one that is seen.
  watch(
    () => [window.value?.low, window.value?.high, written(window.value?.strings), data.value?.chart.updated],
    () => band.threadHeard && window.value && void band.hearThread(asked()),
  )

  const heard = computed(() => (band.audition && band.cue >= 0 ? band.audition.cues[band.cue]!.place : undefined))
  watch(heard, (p) => p && void read(p))

  /** A place sounds for as long as it is pressed, by pointer or key. */
  function press(at: Place) {
    const release = band.hold(midi(at))
    for (const end of ['pointerup', 'pointercancel', 'keyup']) globalThis.addEventListener(end, release, { once: true })
  }

  return { walk, cross, rest, thread, press, heard }
}
