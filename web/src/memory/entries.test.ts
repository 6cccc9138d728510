import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

type Entry = Awaited<ReturnType<(typeof import('./browser'))['all']>>[number] & {
  ref: string
  path: string
  player: number
}
const sent: Entry[] = []
let tried = 0
let answers: 'row' | 'refused' | 'nothing' = 'row'
const send = (e: Entry) => {
  if (answers === 'nothing') {
    tried++
    return Promise.reject(new Error('no answer'))
  }
  sent.push(e)
  return Promise.resolve(answers === 'row' ? { row: { id: sent.length } } : { refused: 'no such chord' })
}
/** A page that opens: what was in memory is gone, what is in the browser stays. */
async function page() {
  vi.resetModules()
  const browser = await import('./browser')
  const { here } = await import('./here')
  const entries = await import('./entries')
  await browser.openMemory()
  here.database = 'db'
  here.player = 2
  await entries.openEntries(send as never)
  return {
    ...entries,
    here,
    waiting: () => browser.all('entries').then((all) => all.length),
    keep: browser.keep,
    close: browser.closeMemory,
  }
}

describe('lines of the log', () => {
  beforeEach(() => {
    vi.stubGlobal('indexedDB', new IDBFactory())
    sent.length = tried = 0
    answers = 'row'
  })
  afterEach(() => vi.useRealTimers())

  it('are noted at once, each with whose it is and when it was, and tell their number', async () => {
    const p = await page()
    const rows = await Promise.all([1, 2, 3].map((n) => p.note('POST', '/api/log/calls', { n })))
    expect(rows).toEqual([{ id: 1 }, { id: 2 }, { id: 3 }])
    expect(sent.map((e) => e.player)).toEqual([2, 2, 2])
    expect(new Set(sent.map((e) => e.ref)).size).toBe(3)
    await vi.waitFor(async () => expect(await p.waiting()).toBe(0))
  })

  it('wait while nothing answers, also over a reload, and are noted in their order', async () => {
    const before = await page()
    answers = 'nothing'
    for (const path of ['/a', '/b', '/c']) void before.note('POST', path, {})
    await vi.waitFor(async () => expect([await before.waiting(), tried > 0]).toEqual([3, true]))
    await new Promise((r) => setTimeout(r, 100))
    before.close()
    answers = 'row'
    const after = await page()
    await vi.waitFor(async () => expect(await after.waiting()).toBe(0))
    expect(sent.map((e) => e.path)).toEqual(['/a', '/b', '/c'])
  })

  it('of another database wait for that one', async () => {
    const p = await page()
    p.here.database = 'other'
    answers = 'nothing'
    void p.note('POST', '/other', {})
    await vi.waitFor(async () => expect([await p.waiting(), tried]).toEqual([1, 1]))
    p.close()
    answers = 'row'
    const q = await page() // of "db"
    await q.note('POST', '/mine', {})
    expect(sent.map((e) => e.path)).toEqual(['/mine'])
    await vi.waitFor(async () => expect(await q.waiting()).toBe(1))
  })

  it('that are refused for what they are do not hold up the others, and are told', async () => {
    const p = await page()
    answers = 'refused'
    expect(await p.note('POST', '/bad', {})).toBeUndefined()
    expect(p.trouble.value).toContain('no such chord')
    answers = 'row'
    expect(await p.note('POST', '/good', {})).toEqual({ id: 2 })
  })

  it('are no more than so many: the oldest go, and that is told', async () => {
    const p = await page()
    const old = Array.from({ length: p.most + 5 }, (_, i) => ({ ref: `r${i}`, database: 'gone', player: 1, method: 'POST' as const, path: '/x', body: {}, at: i })) // prettier-ignore
    await p.keep({ put: { entries: old } })
    await p.note('POST', '/now', {})
    await vi.waitFor(async () => expect(await p.waiting()).toBeLessThanOrEqual(p.most))
    expect(p.trouble.value).toContain('was let go')
  })
})
