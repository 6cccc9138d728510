/* Files are read, looked at, and what of them is wanted is kept: many at once, told as it goes on, and stopped at will. */
import { useThrottleFn } from '@vueuse/core'
import { computed, ref, shallowRef } from 'vue'
import { answer, fetchOf, api, type Brought, type Score } from '../api/client'
import { quarter } from '../api/facts'
import type { Kind } from './bringing'

export interface Wish {
  part?: number
  chart?: number
  out?: boolean
  /** the chord that licks lie over which come without */
  over?: string
}

export interface Item {
  file: File
  wish: Wish
  /** What it was understood as, or why not; neither while it is read. */
  brought?: Brought
  trouble?: string
  wanted: boolean
}

async function read(file: File, as: Kind, { part, chart, out, over }: Wish): Promise<Brought> {
  const query = new URLSearchParams({ name: file.name, as, part: String(part ?? 0), chart: String(chart ?? 0) })
  if (out) query.set('out', 'true')
  if (over) query.set('over', over)
  return answer<Brought>(
    fetchOf(`/api/imports?${query}`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: file,
    }).then(async (response) => {
      const body = (await response.json()) as unknown
      return response.ok ? { data: body as Brought, response } : { error: body, response }
    }),
  )
}

/** What was kept: where it is seen, and how many things it is. */
export interface Kept {
  name: string
  id: number
  n: number
}

export async function keep(b: Brought): Promise<Kept> {
  if (b.chart) return { name: 'bench', id: (await answer(api.POST('/api/charts', { body: b.chart }))).id, n: 1 }
  if (b.line) return { name: 'line', id: (await answer(api.POST('/api/lines', { body: b.line }))).id, n: 1 }
  let first = 0
  for (const body of b.licks ?? []) {
    const { id } = await answer(api.POST('/api/licks', { body }))
    first ||= id
  }
  return { name: 'lick', id: first, n: b.licks?.length ?? 0 }
}

/** What of a file can be mended by hand: its text, where it is one and no book. */
export async function textOf(file: File) {
  if (file.size > 60_000) return undefined
  const text = await file.text()
  return text.includes('\0') || text.includes('\uFFFD') || /^\s*<|^MThd/.test(text) ? undefined : text
}

/** Where a bar of a line begins, from 1, to be shown there. */
export function penAt(score: Score, bar: number) {
  const before = score.measures.filter((m) => m.number > 0 && m.number < bar)
  return { tick: before.reduce((sum, m) => sum + m.beats, 0) * quarter, string: 1, open: true }
}

/** So many are on their way at once. */
const atOnce = 4

export function useBring(as: Kind, usual: () => Wish = () => ({})) {
  const items = shallowRef<Item[]>([])
  const at = ref(0)
  /** What goes on: how many of how many are done. */
  const going = ref<{ what: 'reading' | 'keeping'; done: number; of: number }>()
  let stopped = false
  /* Of a thousand files each change by itself would draw all of them anew. */
  let list: Item[] = []
  const show = () => (items.value = [...list])
  const showSoon = useThrottleFn(show, 150, true)
  function put(i: number, part: Partial<Item>) {
    list[i] = { ...list[i]!, ...part }
    void showSoon()
  }

  /** Goes through places, some at once, until it is stopped. */
  async function through(what: 'reading' | 'keeping', places: number[], deed: (i: number) => Promise<void>) {
    stopped = false
    going.value = { what, done: 0, of: places.length }
    let [next, done] = [0, 0]
    const tell = useThrottleFn(() => (going.value = going.value && { what, done, of: places.length }), 100, true)
    const walk = async () => {
      while (!stopped && next < places.length) {
        await deed(places[next++]!)
        done++
        void tell()
      }
    }
    await Promise.all(Array.from({ length: Math.min(atOnce, places.length) }, walk))
    show()
    going.value = undefined
  }
  async function readAt(i: number) {
    const { file, wish } = list[i]!
    try {
      const brought = await read(file, as, wish)
      put(i, { brought, trouble: brought.trouble, wanted: !brought.trouble })
    } catch (e) {
      put(i, { brought: undefined, trouble: e instanceof Error ? e.message : String(e), wanted: false })
    }
  }
  async function open(files: File[]) {
    at.value = 0
    list = files.map((file) => ({ file, wish: usual(), wanted: false }))
    show()
    await through('reading', [...files.keys()], readAt)
  }
  /** Reads one anew, another way. */
  async function again(i: number, wish: Wish) {
    put(i, { wish: { ...list[i]!.wish, ...wish } })
    await readAt(i)
  }
  /** Reads a text anew that was mended, under the name it has. */
  async function mend(i: number, text: string) {
    put(i, { file: new File([text], list[i]!.file.name) })
    show()
    await readAt(i)
    show()
  }
  const wanted = computed(() => items.value.flatMap((item, i) => (item.wanted && item.brought ? [i] : [])))
  /** Keeps what is wanted, and tells where each is seen. What is kept leaves the list; what cannot be stays, with the reason. */
  async function keepAll() {
    const kept: Kept[] = []
    const gone = new Set<Item>()
    await through('keeping', wanted.value, async (i) => {
      try {
        kept.push(await keep(list[i]!.brought!))
        gone.add(list[i]!)
      } catch (e) {
        put(i, { trouble: e instanceof Error ? e.message : String(e), wanted: false })
      }
    })
    list = list.filter((item) => !gone.has(item))
    show()
    at.value = 0
    return kept
  }
  return {
    items,
    at,
    here: computed(() => items.value[at.value]),
    going,
    wanted,
    open,
    again,
    mend,
    keepAll,
    want(i: number, wanted: boolean) {
      put(i, { wanted })
      show()
    },
    stop: () => (stopped = true),
    clear() {
      stopped = true
      list = []
      show()
    },
  }
}
