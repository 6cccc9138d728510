/* A plan that is gone through: which item is played, and how long it has left. It goes on where it was left, after a reload
   and on the next day. */
import { spanOf } from '../../../neck/region'
import { useIntervalFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import type { RouteLocationRaw } from 'vue-router'
import { computed } from 'vue'
import { useSetting } from '../../../memory/settings'
import type { TodayItem } from '../../../api/client'

interface Kept {
  items: TodayItem[]
  /** which is played; −1 before the first */
  at: number
  /** seconds that it has left */
  left: number
  running: boolean
  /** IDs that stay when it is planned anew, and those that were swapped away */
  pinned: string[]
  without: string[]
  minutes: number
  seed: number
  begun?: string
  /** the charts of an evening that comes, and its day */
  evening: number[]
  by: string
}
const none: Kept = {
  items: [],
  at: -1,
  left: 0,
  running: false,
  pinned: [],
  without: [],
  minutes: 20,
  seed: 1,
  evening: [],
  by: '',
}

/** What a plan is asked for, besides the seed: so many minutes, and an evening where its charts and its day are known. */
export const wishOf = ({ minutes, evening, by }: Pick<Kept, 'minutes' | 'evening' | 'by'>) =>
  evening.length && by ? { minutes, by, chart: evening } : { minutes }

/** What of an item tells where it is played. */
export type Placed = Pick<
  TodayItem,
  'kind' | 'chart' | 'change' | 'line' | 'lick' | 'mode' | 'tempo' | 'key' | 'start' | 'down' | 'window' | 'mixed'
>

type Params = { id?: number }
const today = (_: Placed, params: Params) => ({ name: 'practice', params, query: { do: 'today' } })
const calls = (item: Placed, params: Params) => ({
  name: 'practice',
  params,
  query: {
    do: 'calls',
    step: '6', // what is planned is asked, no more
    ...(item.mixed
      ? { mixed: item.mixed }
      : {
          ask: 'tones',
          keys: item.key,
          start: item.start,
          way: item.down ? 'down' : 'up',
          frets: item.window && spanOf(item.window),
        }),
  },
})
const line = (item: Placed) => ({
  name: 'line',
  params: { id: item.line },
  query: { play: 'yes', tempo: item.tempo && `${item.tempo}` },
})
/** Over the band; what is written by ear begins a line of its own. */
const changes = (item: Placed, params: Params) => {
  if (item.mode === 'melody') return { name: 'lines', query: { new: `${params.id ?? ''}` } }
  const made = item.line || item.lick
  return {
    name: 'practice',
    params,
    query: {
      do: 'changes',
      mode: item.mode,
      change: item.change,
      with: made && `${made}`,
      play: 'yes',
      tempo: item.tempo && `${item.tempo}`,
      frets: item.window && spanOf(item.window),
    },
  }
}

/** Where each kind of item is played. */
const places: Record<TodayItem['kind'], (item: Placed, params: Params) => RouteLocationRaw> = {
  'warm-up': changes,
  calls,
  changes,
  line,
  rest: today,
  music: changes,
}
export const placeOf = (item: Placed, chart: number) =>
  places[item.kind](item, { id: item.chart || chart || undefined })

export const usePlan = defineStore('plan', () => {
  const kept = useSetting<Kept>('plan', none)
  const item = computed(() => kept.value.items[kept.value.at])
  const begun = (at: number) => {
    kept.value.at = at
    kept.value.left = (kept.value.items[at]?.minutes ?? 0) * 60
  }
  const clock = useIntervalFn(() => {
    if (!kept.value.running || !item.value) return
    if (--kept.value.left <= 0) next()
  }, 1000)
  function next() {
    begun(kept.value.at + 1)
    if (!item.value) kept.value.running = false
  }
  return {
    kept,
    item,
    clock,
    over: computed(() => kept.value.items.length > 0 && kept.value.at >= kept.value.items.length),
    /** Begins it, or goes on with it. */
    go() {
      if (kept.value.at < 0 || !item.value) begun(0)
      kept.value.running = true
      kept.value.begun ??= new Date().toISOString()
    },
    pause: () => (kept.value.running = false),
    next,
    /** Takes up a plan. What is pinned stays, where it is. */
    take(items: TodayItem[]) {
      const pinned = kept.value.items.filter((i) => kept.value.pinned.includes(i.id))
      const fresh = items.filter((i) => !pinned.some((p) => p.id === i.id))
      const end = fresh.at(-1)
      const room = items.reduce((n, i) => n + i.minutes, 0) - pinned.reduce((n, i) => n + i.minutes, 0)
      let used = 0
      const fits = fresh.filter((i) => (used += i.minutes) <= room || i === end)
      kept.value = {
        ...kept.value,
        items: [...fits.slice(0, -1), ...pinned, ...fits.slice(-1)],
        at: -1,
        left: 0,
        running: false,
        begun: undefined,
      }
    },
    /** Puts another item in the place of one. */
    swap(id: string, other: TodayItem | undefined) {
      kept.value.without = [...kept.value.without, id]
      kept.value.items = kept.value.items.flatMap((i) =>
        i.id !== id ? [i] : other ? [{ ...other, minutes: i.minutes }] : [],
      )
    },
    shorten(id: string, by: number) {
      kept.value.items = kept.value.items.map((i) => (i.id === id ? { ...i, minutes: Math.max(1, i.minutes + by) } : i))
    },
    pin(id: string) {
      const { pinned } = kept.value
      kept.value.pinned = pinned.includes(id) ? pinned.filter((p) => p !== id) : [...pinned, id]
    },
    end() {
      const { minutes, seed, evening, by } = kept.value
      kept.value = { ...none, minutes, seed: seed + 1, evening, by }
    },
  }
})
