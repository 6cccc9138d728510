/* A line learned in parts: the band loops the bars of the stretch in hand, and only its notes are asked for. */
import { until } from '@vueuse/core'
import { computed, watch, type Ref } from 'vue'
import { quarter } from '../../api/facts'
import type { LineBody, Study } from '../../api/client'
import { useBand } from '../../band/useBand'
import { useSetting } from '../../memory/settings'
import { useAddress } from '../../shell/useAddress'
import { course, learned, nameOf, rungOf, type Learned } from './parts'

const none: Learned = { step: 0, rungs: {} }

export function useParts(id: Ref<number>, line: Ref<LineBody | undefined>, study: Ref<Study | undefined>) {
  const band = useBand()
  const kept = useSetting<Record<string, Learned>>('parts', {})
  const wanted = useAddress().yes('parts')
  const parts = computed(() => study.value?.report.parts ?? [])
  const all = computed(() => course(parts.value.length))
  const on = computed(() => wanted.value && all.value.length > 0)
  const here = computed(() => {
    const l = kept.value[id.value] ?? none
    return { ...l, step: Math.min(l.step, all.value.length - 1) }
  })
  const stretch = computed(() => (on.value ? all.value[here.value.step] : undefined))
  /** What is asked for: the notes of the stretch in hand, or the whole line. */
  const practised = computed<LineBody | undefined>((before) => {
    const [s, l] = [stretch.value, line.value]
    if (!s || !l) return l
    const notes = new Set(parts.value.slice(s[0], s[1] + 1).flatMap((p) => p.notes))
    const own = l.notes.filter((n) => notes.has(n.id!))
    const same =
      before && before !== l && before.notes.length === own.length && own.every((n, i) => n === before.notes[i])
    return same && before.text === l.text && before.key === l.key && before.tempo === l.tempo
      ? before
      : { ...l, notes: own }
  })
  const loop = computed(() => {
    const s = stretch.value
    return s && { from: parts.value[s[0]]!.from / quarter, to: parts.value[s[1]]!.to / quarter }
  })
  const rung = computed(() => stretch.value && rungOf(here.value, stretch.value, line.value?.tempo ?? 100))
  function put(l: Learned) {
    kept.value = { ...kept.value, [id.value]: l }
  }
  /** The band goes where the stretch is, at its tempo. */
  function there() {
    band.setLoop(loop.value)
    if (rung.value && rung.value.tempo !== band.tempo) band.setTempo(rung.value.tempo)
  }
  watch(
    () => [band.offered?.title, JSON.stringify(loop.value)],
    () => on.value && band.offered?.title === line.value?.title && there(),
    { immediate: true, flush: 'post' },
  )
  watch(on, (now) => !now && band.setLoop(undefined))
  return {
    on,
    can: computed(() => parts.value.length > 1),
    of: computed(() => parts.value.length),
    name: computed(() => stretch.value && nameOf(stretch.value)),
    bars: computed(() => {
      const s = stretch.value
      if (!s) return ''
      const [a, b] = [parts.value[s[0]]!, parts.value[s[1]]!]
      const last = b.bar + b.bars - 1
      return a.bar === last ? `bar ${a.bar}` : `bars ${a.bar} to ${last}`
    }),
    step: computed(() => here.value.step),
    steps: computed(() => all.value.length),
    rung,
    practised,
    from: () => loop.value?.from,
    turn: () => (wanted.value = !wanted.value),
    /** The part that holds a note is learned; told once the band is there. */
    async begin(note: number) {
      const k = parts.value.findIndex((p) => p.notes.includes(note))
      const step = all.value.findIndex(([a, b]) => a === k && b === k)
      if (step < 0) return
      put({ ...here.value, step })
      wanted.value = true
      await until(on).toBe(true)
    },
    go: (by: -1 | 1) => put({ ...here.value, step: Math.max(0, Math.min(all.value.length - 1, here.value.step + by)) }),
    passed(clean: boolean) {
      if (!on.value) return false
      put(learned(here.value, all.value, clean, line.value?.tempo ?? band.tempo))
      if (rung.value && rung.value.tempo !== band.tempo) band.setTempo(rung.value.tempo)
      return true
    },
  }
}
export type Parts = ReturnType<typeof useParts>
