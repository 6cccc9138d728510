import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { beforeEach, describe, expect, it, vi } from 'vitest'

async function page(player = 1, database = 'db') {
  vi.resetModules()
  const browser = await import('./browser')
  const { here } = await import('./here')
  const settings = await import('./settings')
  const old = await import('./old')
  const unsent = await import('./unsent')
  await browser.openMemory()
  Object.assign(here, { player, database })
  return { ...browser, ...settings, ...old, ...unsent, here }
}
/** Storage as older programs had it. */
function shelf(of: Record<string, string>): Storage {
  const map = new Map(Object.entries(of))
  return {
    get length() {
      return map.size
    },
    key: (i: number) => [...map.keys()][i] ?? null,
    getItem: (k: string) => map.get(k) ?? null,
    setItem: (k: string, v: string) => void map.set(k, v),
    removeItem: (k: string) => void map.delete(k),
    clear: () => map.clear(),
  }
}

describe('what a player chose', () => {
  beforeEach(() => vi.stubGlobal('indexedDB', new IDBFactory()))

  it('is there at the next visit, whole, also where a newer program knows more of it', async () => {
    const p = await page()
    await p.readSettings()
    const plan = p.useSetting('plan', { minutes: 20, items: [] as string[] })
    plan.value.minutes = 30
    plan.value.items.push('thirds')
    await vi.waitFor(async () => expect(JSON.stringify(await p.all('settings'))).toContain('thirds'))
    const q = await page()
    await q.readSettings()
    expect(q.useSetting('plan', { minutes: 20, items: [], seed: 1 }).value).toEqual({
      minutes: 30,
      items: ['thirds'],
      seed: 1,
    })
  })

  it('is of the player and the database, or of the browser, for every name there is', async () => {
    const p = await page()
    await p.readSettings()
    for (const [name, whose] of Object.entries(p.remembered) as [keyof typeof p.remembered, string][]) {
      const of = p.useSetting(name, { mine: 0 })
      Object.assign(p.here, { player: 1, database: 'db' })
      of.value = { mine: 1 }
      p.here.player = 2
      expect([name, of.value.mine]).toEqual([name, whose === 'browser' ? 1 : 0])
      p.here.player = 1
      p.here.database = 'other'
      expect([name, of.value.mine]).toEqual([name, whose === 'browser' ? 1 : 0])
      p.here.database = 'db'
      expect(of.value.mine).toBe(1)
    }
  })

  it('under the keys of older programs goes to the player in hand, once, and what is there already stays', async () => {
    const local = shelf({
      'undaris-theme': 'stage',
      'undaris-rungs': '{"line 1":{"tempo":77,"row":0}}',
      'undaris-regions': '{"1 6":{"own":"5-9"},"2 6":{"own":"0-4"}}',
      other: 'of somebody else',
    })
    const p = await page(2)
    await p.moveOld(local)
    await p.readSettings()
    expect(p.useSetting('theme', '').value).toBe('stage')
    expect(p.useSetting('rungs', {}).value).toEqual({ 'line 1': { tempo: 77, row: 0 } })
    expect(p.useSetting('regions', {}).value).toEqual({ 6: { own: '0-4' } })
    expect([local.length, local.getItem('other')]).toEqual([1, 'of somebody else'])
    await p.moveOld(shelf({ 'undaris-theme': 'paper' }))
    await p.readSettings()
    expect(p.useSetting('theme', '').value).toBe('stage')
  })

  it('stays where it was while whose it is is not known', async () => {
    const local = shelf({ 'undaris-plan': '{"minutes":40}' })
    await (await page(0, '')).moveOld(local)
    expect(local.length).toBe(1)
  })

  it('unsent work of older programs is offered, whole, and dropped by nobody', async () => {
    const local = shelf({
      'undaris-unsent:/api/lines/1': '{"version":3,"body":{"title":"Old","notes":[]}}',
      'undaris-unsent:/api/charts/new': '{"version":0,"body":{"title":"New"}}',
      'undaris-unsent:/api/licks/2': 'no JSON',
    })
    const p = await page()
    await p.moveOld(local)
    await p.look()
    expect(p.offers.value.map((o) => [o.slot.path, o.slot.database, o.slot.title]).sort()).toEqual([
      ['/api/charts/new', '', 'New'],
      ['/api/lines/1', '', 'Old'],
    ])
    expect(await p.leftOf('/api/lines/1', 'db.1.2')).toEqual([]) // never applied
    expect(await p.leftOf('/api/charts/new', '')).toEqual([])
    expect(local.length).toBe(0)
  })
})
