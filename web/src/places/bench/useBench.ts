import { computed, watch } from 'vue'
import { useAddress } from '../../shell/useAddress'
import type { Target } from '../../api/client'
import { useBand } from '../../band/useBand'
import { noteOpened, useChartMap, useCharts } from '../../api/queries'
import { useRegion, useRegions } from './useRegion'
import { metreOfSheet } from '../../music/metre'
import { useRemembered } from './useRemembered'

export const plainLabels = ['degree', 'note', 'finger', 'fret'] as const
/* Where the next chord is known, also how far it is. */
export const labelKinds = [...plainLabels, 'steps'] as const
export type LabelKind = (typeof labelKinds)[number]

export interface Step {
  bar: number
  change: number
  chord: number
  beat: number
  length: number
}

/** The Bench's state lives in the address bar: chart, bar and chord, window, labels. */
export function useBench() {
  const address = useAddress()
  const charts = useCharts()
  const { read: text, write: turn } = address

  const id = computed(() => address.id.value || charts.data.value?.[0]?.id || 0)
  watch(id, (now) => now && noteOpened(now), { immediate: true })

  useRemembered(id, address)
  const region = useRegion(address)
  const { range, own } = region
  const map = useChartMap(
    id,
    region.asked,
    computed(() => id.value > 0),
  )
  const data = computed(() => map.data.value)
  const regions = useRegions(region, turn, data)

  const steps = computed<Step[]>(
    () =>
      data.value?.bars.flatMap((b, bar) =>
        b.changes.map((c, change) => ({ bar, change, chord: c.chord, beat: c.beat, length: c.length })),
      ) ?? [],
  )
  const at = computed(() => {
    const bar = Number(text('bar')) - 1
    const beat = Number(text('beat')) || 1
    const i = steps.value.findIndex((s) => s.bar === bar && s.beat === beat)
    return i >= 0
      ? i
      : Math.max(
          0,
          steps.value.findIndex((s) => s.bar === bar),
        )
  })
  const step = computed(() => steps.value[at.value])
  const chord = computed(() => data.value?.chords[step.value?.chord ?? 0])

  /** The next places where the chord changes, each with how many beats away it is. */
  const coming = computed(() => {
    const out: (Step & { beats: number })[] = []
    const n = steps.value.length
    let beats = 0
    for (let i = 0; i < n && out.length < 3; i++) {
      const here = steps.value[(at.value + i) % n]!
      const there = steps.value[(at.value + i + 1) % n]!
      beats += here.length
      if (there.chord !== here.chord) out.push({ ...there, beats })
    }
    return out
  })

  const positions = computed(() => data.value?.positions ?? [])
  const position = computed(() => {
    if (own.value)
      return Math.max(
        0,
        positions.value.findIndex((p) => p.number === 0),
      )
    const asked = range('frets')
    const i = positions.value.findIndex((p) => p.low === asked?.low && p.high === asked.high)
    if (i >= 0) return i
    const nearest = (low: number) =>
      positions.value.reduce(
        (best, p, j) => (Math.abs(p.low - low) < Math.abs(positions.value[best]!.low - low) ? j : best),
        0,
      )
    if (asked) return nearest(asked.low)
    return Math.max(
      0,
      positions.value.findIndex((p) => p.shape === 'E'),
    )
  })
  const window = computed(() => positions.value[position.value])
  const here = computed(() => data.value?.byPosition[position.value])
  const run = computed(() => here.value?.runs[step.value?.chord ?? 0])

  /** The pair of chords that the next change goes between, and its moves in this window. */
  const pair = computed(() => {
    const from = step.value?.chord
    const to = coming.value[0]?.chord
    return data.value?.changes.findIndex((c) => c.from === from && c.to === to) ?? -1
  })
  const enclosed = computed(() => data.value?.changes[pair.value]?.enclosed ?? [])
  const moves = computed(() => {
    const i = pair.value
    return (data.value?.changes[i]?.steps ?? [])
      .map((s, k) => ({ ...s, places: here.value?.crossings[i]?.[k] ?? [] }))
      .filter((m) => m.places.length)
  })
  const thread = computed(() => here.value?.thread)
  /** The thread's targets of the chorus in hand, by step. */
  const targets = computed(() => {
    const out: (Target | undefined)[] = steps.value.map(() => undefined)
    for (const t of thread.value?.targets ?? []) if ((t.chorus ?? 0) === chorus.value) out[t.step] = t
    return out
  })
  const indexOf = (s: { bar: number; change: number }) =>
    steps.value.findIndex((x) => x.bar === s.bar && x.change === s.change)
  const nextStep = computed(() => (coming.value[0] ? indexOf(coming.value[0]) : -1))
  /** The target of the next change; past the end of the form it is the next chorus's. */
  const nextTarget = computed(() => {
    const i = nextStep.value
    const c = i <= at.value ? (chorus.value + 1) % choruses.value : chorus.value
    return thread.value?.targets.find((t) => t.step === i && (t.chorus ?? 0) === c)
  })

  const layers = ['tones', 'arrivals', 'palette', 'bends'] as const
  const dimmed = computed(() => new Set(text('dim').split(',').filter(Boolean)))
  const dim = (layer: string) => {
    const now = new Set(dimmed.value)
    if (!now.delete(layer)) now.add(layer)
    turn({ dim: [...now].join(',') || undefined })
  }

  const labels = computed<LabelKind>(() => labelKinds.find((k) => k === text('labels')) ?? 'degree')

  const choruses = computed(() => data.value?.choruses ?? 1)
  const chorus = computed(() => Math.min(Math.max(Number(text('chorus')) - 1 || 0, 0), choruses.value - 1))

  /** Shows a step; past either end the form comes round, into the next or the last chorus. */
  const show = (i: number) => {
    const n = steps.value.length
    const s = steps.value[((i % n) + n) % n]
    const c = (chorus.value + Math.floor(i / n) + choruses.value) % choruses.value
    if (s)
      turn({
        bar: String(s.bar + 1),
        beat: s.beat > 1 ? String(s.beat) : undefined,
        chorus: c ? String(c + 1) : undefined,
      })
  }
  const metre = computed(() => metreOfSheet(data.value?.bars ?? []))
  const beatOf = (s: Step) => metre.value.startOf(s.bar) + s.beat - 1
  const band = useBand()
  /** Goes to a step. While the band plays it is the band, or its loop, that goes. */
  const go = (i: number) => {
    const n = steps.value.length
    const by = i - at.value
    if (!band.playing || band.audition) show(i)
    else if (band.loop && Math.abs(by) === 1)
      band.aim(by > 0 ? band.loop.to % band.formBeats : Math.max(0, 2 * band.loop.from - band.loop.to))
    else band.aim(beatOf(steps.value[((i % n) + n) % n]!))
  }
  const goTo = (bar: number, change: number) => go(steps.value.findIndex((s) => s.bar === bar && s.change === change))
  const setPosition = (i: number) => {
    const p = positions.value[i]
    if (p) turn(p.number === 0 ? {} : { frets: `${p.low}-${p.high}`, own: undefined, on: undefined, way: undefined })
  }
  /** Moves to the next position or region up or down the neck. */
  const shift = (by: number) => {
    if (own.value) regions.shift(by)
    else setPosition(Math.min(positions.value.length - 1, Math.max(0, position.value + by)))
  }
  /** A number goes to its position, and again to the same one an octave away. */
  const setNumber = (n: number) => {
    const same = positions.value.map((p, i) => ({ p, i })).filter(({ p }) => p.number === n)
    if (!same.length) return
    const here = own.value ? -1 : same.findIndex(({ i }) => i === position.value)
    const first = same.find(({ p }) => !p.octave && !p.nut) ?? same[0]!
    setPosition(here < 0 ? first.i : same[(here + 1) % same.length]!.i)
  }
  const setLabels = (kind: LabelKind) => turn({ labels: kind === 'degree' ? undefined : kind })

  return {
    id,
    charts,
    map,
    data,
    steps,
    at,
    step,
    chord,
    coming,
    positions,
    position,
    window,
    own,
    way: region.way,
    shape: regions.shape,
    run,
    here,
    moves,
    enclosed,
    thread,
    targets,
    nextStep,
    nextTarget,
    chorus,
    choruses,
    layers,
    dimmed,
    labels,
    indexOf,
    beatOf,
    show,
    go,
    goTo,
    setPosition,
    setNumber,
    shift,
    setOwn: regions.setOwn,
    leaveOwn: regions.leaveOwn,
    setLabels,
    dim,
    turn,
  }
}

export type Bench = ReturnType<typeof useBench>
