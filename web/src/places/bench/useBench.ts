import { readFrets, spanOf } from '../../neck/region'
import { usePositionInHand } from '../../neck/usePositionInHand'
import { computed, watch } from 'vue'
import { useAddress } from '../../shell/useAddress'
import { useBand } from '../../band/useBand'
import { noteOpened, useChartMap, useCharts } from '../../api/queries'
import { plainLabels } from '../../neck/labels'
import { useRegion, useRegions } from '../../neck/useRegion'
import { metreOfSheet } from '../../music/metre'
import { useRemembered } from './useRemembered'
import { aimed, comingFrom, movesOf, numbered, positionOf, round, stepAt, stepsOf, targetAt, targetsOf, toggled } from './standing' // prettier-ignore
import type { Step } from '../../sheet/step'

/* Where the next chord is known, also how far it is. */
export const labelKinds = [...plainLabels, 'steps'] as const
export type LabelKind = (typeof labelKinds)[number]

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

  const steps = computed(() => stepsOf(data.value?.bars ?? []))
  const at = computed(() => stepAt(steps.value, Number(text('bar')), Number(text('beat')) || 1))
  const step = computed(() => steps.value[at.value])
  const chord = computed(() => data.value?.chords[step.value?.chord ?? 0])

  /** The next places where the chord changes, each with how many beats away it is. */
  const coming = computed(() => comingFrom(steps.value, at.value))

  const positions = computed(() => data.value?.positions ?? [])
  const inHand = usePositionInHand(id)
  const position = computed(() => positionOf(positions.value, range('frets') ?? readFrets(inHand.value), !!own.value))
  watch(
    () => text('frets'),
    (frets) => readFrets(frets) && (inHand.value = frets),
    { immediate: true },
  )
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
  const moves = computed(() => movesOf(data.value, here.value?.crossings, pair.value))
  const thread = computed(() => here.value?.thread)
  /** The thread's targets of the chorus in hand, by step. */
  const targets = computed(() => targetsOf(steps.value.length, thread.value, chorus.value))
  const indexOf = (s: { bar: number; change: number }) =>
    steps.value.findIndex((x) => x.bar === s.bar && x.change === s.change)
  const nextStep = computed(() => (coming.value[0] ? indexOf(coming.value[0]) : -1))
  /** The target of the next change; past the end of the form it is the next chorus's. */
  const nextTarget = computed(() => targetAt(thread.value, nextStep.value, at.value, chorus.value, choruses.value))

  const layers = ['tones', 'arrivals', 'palette', 'bends'] as const
  const dimmed = computed(() => new Set(text('dim').split(',').filter(Boolean)))
  const dim = (layer: string) => turn({ dim: toggled(text('dim'), layer) })

  const labels = computed<LabelKind>(() => labelKinds.find((k) => k === text('labels')) ?? 'degree')

  const choruses = computed(() => data.value?.choruses ?? 1)
  const chorus = computed(() => Math.min(Math.max(Number(text('chorus')) - 1 || 0, 0), choruses.value - 1))

  /** Shows a step; past either end the form comes round, into the next or the last chorus. */
  const show = (i: number) => {
    if (!steps.value.length) return
    const to = round(i, steps.value.length, chorus.value, choruses.value)
    const s = steps.value[to.step]!
    turn({
      bar: String(s.bar + 1),
      beat: s.beat > 1 ? String(s.beat) : undefined,
      chorus: to.chorus ? String(to.chorus + 1) : undefined,
    })
  }
  const metre = computed(() => metreOfSheet(data.value?.bars ?? []))
  const beatOf = (s: Step) => metre.value.startOf(s.bar) + s.beat - 1
  const band = useBand()
  /** Goes to a step. While the band plays it is the band, or its loop, that goes. */
  const go = (i: number) => {
    if (!band.playing || band.audition || !steps.value.length) return show(i)
    const { step } = round(i, steps.value.length, 0, 1)
    band.aim(aimed(i - at.value, band.loop, band.formBeats, beatOf(steps.value[step]!)))
  }
  const goTo = (bar: number, change: number) => go(steps.value.findIndex((s) => s.bar === bar && s.change === change))
  const setPosition = (i: number) => {
    const p = positions.value[i]
    if (p) turn(p.number === 0 ? {} : { frets: spanOf(p), own: undefined, on: undefined, way: undefined })
  }
  /** Moves to the next position or region up or down the neck. */
  const shift = (by: number) => {
    if (own.value) regions.shift(by)
    else setPosition(Math.min(positions.value.length - 1, Math.max(0, position.value + by)))
  }
  /** A number goes to its position, and again to the same one an octave away. */
  const setNumber = (n: number) => {
    const to = numbered(positions.value, n, own.value ? -1 : position.value)
    if (to !== undefined) setPosition(to)
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
