/* What is practised over the changes, and where: the way, the position, and what it is played over: the chart's chords, for
   some ways others in their place, or what is made of a lick or a line. */
import { readFrets, spanOf } from '../../neck/region'
import { usePositionInHand } from '../../neck/usePositionInHand'
import { computed, ref } from 'vue'
import { useLicks, useLines } from '../../api/kept'
import type { LineBody } from '../../api/client'
import { useGround } from '../../api/takes'
import { useCatalogue } from '../../api/queries'
import { usePractised } from './usePractised'

export function useChosen() {
  const { address, charts, id, map, chart } = usePractised()
  const catalogue = useCatalogue()
  const modes = computed(() => catalogue.data.value?.modes ?? [])
  const asked = address.text('mode', 'land')
  const mode = computed(() => modes.value.find((m) => m.id === asked.value) ?? modes.value[0])
  /* The position that was chosen, else the one in hand, else the first; for bends the first that a string can be bent in. */
  const inHand = usePositionInHand(id)
  const asks = address.text('frets', '')
  const frets = computed({
    get: () => asks.value || inHand.value,
    set: (now) => (inHand.value = asks.value = now),
  })
  /* Frets of the player's own stand beside the positions. */
  const positions = computed(() => {
    const { positions: list = [], instrument } = map.data.value ?? {}
    const own = readFrets(asks.value)
    const known = !own || !instrument || list.some((p) => spanOf(p) === asks.value)
    return known || own.low > own.high || own.high > instrument.last ? list : [...list, own]
  })
  const position = computed(
    () =>
      positions.value.find((p) => spanOf(p) === asks.value) ??
      positions.value.find((p) => spanOf(p) === inHand.value && (!mode.value?.writes || p.low >= 5)) ??
      positions.value.find((p) => !mode.value?.writes || p.low >= 5) ??
      positions.value[0],
  )
  const chords = computed<LineBody | undefined>(() => {
    const c = chart.value
    const w = position.value
    if (!c || !w) return undefined
    const { title, key, feel, tempo, beats, text } = c
    return { title, key, feel, tempo, beats, text, low: w.low, high: w.high, notes: [] }
  })
  const licks = useLicks()
  const lines = useLines()
  const made = computed(() => (mode.value?.with === 'line' ? lines.data.value : licks.data.value) ?? [])
  const chosen = address.text('with', '')
  const seed = ref(1)
  /** One chord of the chart that is looped, in its place. */
  const chord = address.text('chord', '')
  /** What is easier on the hand, where a way to practise has such a choice. */
  const easy = address.yes('easy')
  const ground = useGround(
    chords,
    computed(() => {
      const m = mode.value
      if (!m) return undefined
      return {
        mode: m.id,
        with: (m.with && Number(chosen.value)) || undefined,
        seed: m.writes ? seed.value : undefined,
        chord: chord.value || undefined,
        easy: (!!m.easier && easy.value) || undefined,
      }
    }),
  )
  const lacks = computed(() => !!mode.value?.with && !Number(chosen.value))
  const over = computed(() => (lacks.value ? undefined : ground.data.value?.line))
  const tune = computed(() =>
    mode.value?.with === 'line' ? lines.data.value?.find((l) => `${l.id}` === chosen.value)?.title : undefined,
  )
  return {
    address,
    charts,
    id,
    map,
    chart,
    modes,
    asked,
    mode,
    frets,
    positions,
    position,
    made,
    chosen,
    seed,
    chord,
    easy,
    ground,
    lacks,
    over,
    tune,
    /** Where the band plays what it is played over too, it does so as it plays a line; or it plays first what is to be found
     * by ear. */
    own: computed(() => ground.data.value?.lead ?? (ground.data.value?.band ? over.value : undefined)),
    /** What is to be played is drawn. */
    sheet: computed(() => (lacks.value ? undefined : ground.data.value?.shown)),
    /** What takes, the log and ladders call it. */
    title: computed(() => `${tune.value ?? chart.value?.title}, ${mode.value?.name.toLowerCase()}`),
  }
}
export type Chosen = ReturnType<typeof useChosen>
