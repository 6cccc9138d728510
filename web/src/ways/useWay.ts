/* Which way in is gone, and how far: it goes on after a reload. Places tell what was met; nobody is made to follow. */
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useChartMap } from '../api/queries'
import { phrase } from '../band/audition'
import { useBand } from '../band/useBand'
import { landingAt } from '../listen/landing'
import { useSetting } from '../memory/settings'
import { aimOf } from './aim'
import { ways, type Deed, type Met, type WayId } from './ways'

interface Kept {
  way: WayId | null
  step: number
  chart: number
  done: WayId[]
}

export const useWay = defineStore('way', () => {
  const kept = useSetting<Kept>('way', { way: null, step: 0, chart: 0, done: [] })
  const band = useBand()
  const router = useRouter()
  const chart = computed(() => kept.value.chart)
  const map = useChartMap(
    chart,
    ref(undefined),
    computed(() => !!kept.value.way && chart.value > 0),
  )
  const aim = computed(() => map.data.value && aimOf(map.data.value))
  const way = computed(() => (kept.value.way ? ways[kept.value.way] : undefined))
  const step = computed(() => way.value?.steps[kept.value.step])
  const times = ref(0)

  function go(to: number) {
    times.value = 0
    kept.value.step = to
    const first = step.value?.first
    if (first) void deeds[first]()
    if (to >= (way.value?.steps.length ?? 0) - 1 && kept.value.way && !kept.value.done.includes(kept.value.way))
      kept.value.done = [...kept.value.done, kept.value.way]
  }
  /** The step after a button: the next, or, however often it is begun anew, that of playing. */
  const onwards = (deed: Deed) =>
    deed === 'keys' || deed === 'guitar' ? way.value!.steps.findIndex((s) => s.id === 'playing') : kept.value.step + 1
  /** Begins a way over a chart: at its first step, on the Bench. */
  async function begin(id: WayId, of: number) {
    kept.value = { ...kept.value, way: id, step: 0, chart: of }
    times.value = 0
    if (id !== 'say') await router.push({ name: 'bench', params: { id: of }, query: await there() })
  }
  /** The Bench where the change is. */
  async function there() {
    const a = aim.value ?? aimOf((await map.refetch()).data!)
    return a && { bar: `${Math.max(1, a.bar - 1)}`, frets: a.frets }
  }
  function hear() {
    const [a, c] = [aim.value, map.data.value?.chart]
    if (!a || !c) return
    void band.hear({
      title: `${a.note}, the ${a.name} of ${a.to}`,
      ...phrase({ key: c.key, beats: c.beats, feel: c.feel, text: `| ${a.from} | ${a.to} |`, lead: [a.before, a.place].map((p) => ({ midi: p.midi, beats: c.beats })) }), // prettier-ignore
      cues: [a.before, a.place].map((place, i) => ({ beat: i * c.beats, length: c.beats, place })),
    })
  }
  const land = (more: Record<string, string | undefined> = {}) => {
    band.stop()
    const to = landingAt({ chart: chart.value, mode: aim.value?.mode, frets: aim.value?.frets, loop: aim.value?.loop })
    return router.push({ ...(to as object), query: { ...(to as { query: object }).query, ...more } })
  }
  const calls = (start: string) =>
    router.push({ name: 'practice', params: { id: chart.value }, query: { do: 'calls', ask: 'every', start, frets: aim.value?.frets, by: 'neck' } }) // prettier-ignore
  const deeds: Record<Deed, () => unknown> = {
    play() {
      if (map.data.value) band.take(map.data.value.chart)
      return band.start(0)
    },
    hear,
    bench: async () => (band.stop(), router.push({ name: 'bench', params: { id: chart.value }, query: await there() })),
    guitar: async () => {
      const { useEar } = await import('../listen/useEar')
      const ear = useEar()
      if (!ear.on) void ear.turn()
      return land()
    },
    keys: () => land({ keys: 'yes' }),
    whole: () => land({ loop: undefined }),
    roots: () => calls('root'),
    thirds: () => calls('third'),
    next: () => undefined,
    see: () => begin('see', chart.value),
    land: () => begin('land', chart.value),
    say: () => begin('say', chart.value),
  }
  return {
    kept,
    way,
    step,
    aim,
    begin,
    leave: () => (kept.value.way = null),
    /** What a button says is done, and the next step comes; a way that leads to another is left. */
    do(deed: Deed) {
      void deeds[deed]()
      if (deed === 'whole') kept.value.way = null
      else if (!(deed in ways)) go(onwards(deed))
    },
    met(what: Met) {
      const waits = step.value?.waits
      if (waits?.for === what && ++times.value >= waits.times) go(kept.value.step + 1)
    },
  }
})
