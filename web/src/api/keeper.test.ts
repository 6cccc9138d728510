import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { apply } from '../document/steps'
import { mergeFields } from '../document/merge'
import { all, openMemory, trust } from '../memory/browser'
import { here } from '../memory/here'
import { look, offers } from '../memory/unsent'
import { Changed, Refused } from './client'
import { useKeeper } from './keeper'
import type { Decision } from './questions'

interface Body {
  title: string
  text: string
}
interface Thing extends Body {
  version: string
  beside: number
}
/* A server that keeps one thing. */
let count = 0
const fresh = (of = 'db.1') => `${of}.${++count}`
const server = { now: {} as Thing, gone: false, deleted: false, slow: [] as (() => void)[], hold: false }
const put = vi.fn(async (body: Body, ifMatch: string) => {
  if (server.hold) await new Promise<void>((go) => server.slow.push(go))
  if (server.gone) throw new Refused('Undaris does not answer.', {}, 0)
  if (server.deleted) throw new Refused('there is no such thing', {}, 404)
  if (body.title === '') throw new Refused('a title is needed', {}, 422)
  if (ifMatch !== `"${server.now.version}"`) throw new Changed('changed elsewhere', { ...server.now })
  server.now = { ...server.now, ...body, version: fresh() }
  return { ...server.now }
})
const part = ({ title, text }: Body) => ({ title, text })
const is = (title: string, text = 'x') => ({ title, text })
const copies: Body[] = []
beforeEach(async () => {
  vi.stubGlobal('indexedDB', new IDBFactory())
  await openMemory()
  here.database = 'db'
  server.now = { version: fresh(), title: 'one', text: 'x', beside: 0 }
  Object.assign(server, { gone: false, deleted: false, hold: false, slow: [] })
  copies.length = 0
  put.mockClear()
})
function keeper(decision: Decision = 'mine', ask = vi.fn(() => Promise.resolve(decision))) {
  const k = useKeeper<Body, Thing>({
    path: '/api/things/1',
    title: 'The thing',
    what: 'The thing',
    put,
    part,
    ask,
    merge: mergeFields,
    copy: (b) => Promise.resolve(copies.push(b)),
    restore: () => {
      server.deleted = false
      server.now = { ...server.now, version: fresh() }
      return Promise.resolve({ ...server.now })
    },
  })
  k.at({ ...server.now })
  return { k, ask }
}
const elsewhere = (change: Partial<Thing>) => (server.now = { ...server.now, version: fresh(), ...change })
const waiting = async () => (await all('slots')).length
/** The page is closed: what it had in hand is left. */
const left = async (k: ReturnType<typeof keeper>['k']) => {
  k.leave()
  await look()
}
async function takenUp(k: ReturnType<typeof keeper>['k']) {
  return apply(await k.unsent(), part(server.now))
}

describe('a keeper', () => {
  it('saves one after the other, each on the version the one before made', async () => {
    const { k } = keeper()
    server.hold = true
    const titles = ['two', 'three', 'four']
    const all = titles.map((t) => k.save(is(t)))
    for (let i = 0; i < 3; i++) {
      await vi.waitFor(() => expect(server.slow.length).toBe(1))
      const before = server.now.version
      server.slow.pop()!()
      await all[i]
      expect(put.mock.calls[i]![1]).toBe(`"${before}"`)
    }
    expect(server.now.title).toBe('four')
    expect(await waiting()).toBe(0)
  })

  it('joins without asking where only something beside it was changed', async () => {
    const { k, ask } = keeper()
    elsewhere({ beside: 7 })
    expect(await k.save(is('two'))).toMatchObject({ kept: { title: 'two', beside: 7 }, how: 'sent' })
    expect(ask).not.toHaveBeenCalled()
  })

  it('asks where the same was changed, and does as the player says', async () => {
    for (const decision of ['mine', 'theirs'] as const) {
      server.now = { version: fresh(), title: 'one', text: 'x', beside: 0 }
      const { k, ask } = keeper(decision)
      elsewhere({ title: 'theirs' })
      const { kept, how } = await k.save(is('mine'))
      expect(ask).toHaveBeenCalledTimes(1)
      expect([kept.title, how, server.now.title]).toEqual([
        decision,
        decision === 'theirs' ? 'theirs' : 'sent',
        decision,
      ])
      expect((await k.save(is('later'))).kept.title).toBe('later')
      expect(await waiting()).toBe(0)
    }
  })

  it('keeps both where the player wants both', async () => {
    const { k } = keeper('both')
    elsewhere({ title: 'theirs' })
    expect(await k.save(is('mine'))).toMatchObject({ how: 'theirs', kept: { title: 'theirs' } })
    expect([server.now.title, copies]).toEqual(['theirs', [is('mine')]])
  })

  it('joins two changes that touch different parts, and shows the whole', async () => {
    const { k, ask } = keeper()
    elsewhere({ text: 'theirs' })
    expect(await k.save(is('mine'))).toMatchObject({ how: 'joined', kept: { title: 'mine', text: 'theirs' } })
    expect([server.now.title, ask.mock.calls.length, await waiting()]).toEqual(['mine', 0, 0])
  })

  it('does not ask where both made the same change', async () => {
    const { k, ask } = keeper()
    elsewhere({ title: 'two' })
    expect((await k.save(is('two'))).how).toBe('sent')
    expect([ask.mock.calls.length, await waiting()]).toEqual([0, 0])
  })

  it('never writes into another thing, whatever its number and however it joins', async () => {
    for (const version of [fresh('other.1'), fresh('db.2')]) {
      server.now = { version: fresh(), title: 'one', text: 'x', beside: 0 }
      const { k, ask } = keeper()
      server.now = { version, title: 'one', text: 'another', beside: 0 }
      await expect(k.save(is('mine'))).rejects.toThrow('offered')
      expect([server.now.text, server.now.title, ask.mock.calls.length]).toEqual(['another', 'one', 0])
      await left(k)
      here.database = version.split('.')[0]!
      const again = keeper().k
      expect(await again.unsent()).toEqual([])
      await look()
      expect(offers.value.map((o) => o.mine)).toEqual([is('mine')])
      vi.stubGlobal('indexedDB', new IDBFactory())
      await openMemory()
      here.database = 'db'
    }
  })

  it('keeps in the browser what is not confirmed, and brings it back', async () => {
    const { k } = keeper()
    server.gone = true
    await expect(k.save(is('two'))).rejects.toThrow('does not answer')
    await left(k)
    server.gone = false
    const again = keeper().k
    const mine = await takenUp(again)
    expect(mine).toEqual(is('two'))
    await again.takeUp(mine)
    expect(await waiting()).toBe(1) // from now on it is in the new one's hand
    await again.save(mine)
    expect([server.now.title, await waiting()]).toEqual(['two', 0])
    expect(await keeper().k.unsent()).toEqual([])
  })

  it('takes up what two tabs have left, each what it did', async () => {
    const [a, b] = [keeper().k, keeper().k]
    await a.hold(is('mine'))
    await b.hold(is('one', 'yours'))
    await left(a)
    await left(b)
    const { k, ask } = keeper()
    expect(await takenUp(k)).toEqual(is('mine', 'yours'))
    expect(ask).not.toHaveBeenCalled()
  })

  it('asks where two tabs have left the same place changed', async () => {
    const [a, b] = [keeper().k, keeper().k]
    await a.hold(is('mine'))
    await b.hold(is('yours'))
    await left(a)
    await left(b)
    const { k, ask } = keeper('both')
    expect(await takenUp(k)).toEqual(is('mine'))
    expect([ask.mock.calls.length, copies]).toEqual([1, [is('yours')]])
  })

  it('asks before what was brought back takes the place of a newer change', async () => {
    for (const decision of ['theirs', 'mine'] as const) {
      server.now = { version: fresh(), title: 'one', text: 'x', beside: 0 }
      const before = keeper().k
      await before.hold(is('mine'))
      await left(before)
      elsewhere({ title: 'theirs' })
      const { k, ask } = keeper(decision)
      const whole = await takenUp(k)
      expect([ask.mock.calls.length, whole.title]).toEqual([1, decision])
      await k.takeUp(whole)
      await k.save(whole)
      expect([server.now.title, await waiting()]).toEqual([decision, 0])
    }
  })

  it('takes what its own earlier save brought there for its own', async () => {
    const { k, ask } = keeper()
    server.hold = true
    void k.save(is('two')).catch(() => undefined)
    await vi.waitFor(() => expect(server.slow.length).toBe(1))
    await k.hold(is('three'))
    await left(k)
    // The save arrived, but the page had gone before it was told so.
    server.now = { ...server.now, title: 'two', version: fresh() }
    const next = keeper('theirs', ask)
    expect(await takenUp(next.k)).toEqual(is('three'))
    expect(ask).not.toHaveBeenCalled()
  })

  it('keeps what is refused, says why, and goes on', async () => {
    const { k } = keeper()
    await expect(k.save(is(''))).rejects.toThrow('a title is needed')
    expect(await waiting()).toBe(1)
    expect((await k.save(is('two'))).kept.title).toBe('two')
    expect(await waiting()).toBe(0)
  })

  it('asks about what was deleted, and does as the player says', async () => {
    for (const decision of ['mine', 'theirs', 'both'] as const) {
      const { k, ask } = keeper(decision)
      server.deleted = true
      const title = `for ${decision}`
      const { kept } = await k.save(is(title))
      expect(ask).toHaveBeenCalledWith({ kind: 'gone', what: 'The thing', both: true })
      expect([server.deleted, decision === 'mine' ? kept.title : title]).toEqual([decision !== 'mine', title])
      expect(copies).toEqual(decision === 'both' ? [is(title)] : [])
      expect(await waiting()).toBe(0)
      server.deleted = false
    }
  })

  it('saves as the page is left, on the version that the save under way makes', async () => {
    const { k } = keeper()
    server.hold = true
    void k.save(is('two'))
    await vi.waitFor(() => expect(server.slow.length).toBe(1))
    k.saveLast(is('three'))
    server.slow.pop()!()
    await vi.waitFor(() => expect(server.slow.length).toBe(1))
    server.slow.pop()!()
    await vi.waitFor(async () => expect(await waiting()).toBe(0))
    expect(server.now.title).toBe('three')
  })

  it('keeps what is put by while an earlier save is confirmed', async () => {
    const { k } = keeper()
    server.hold = true
    const done = k.save(is('two'))
    await vi.waitFor(() => expect(server.slow.length).toBe(1))
    await k.hold(is('three'))
    server.slow.pop()!()
    await done
    await vi.waitFor(async () => expect((await all('slots'))[0]!.version).toBe(server.now.version))
    await left(k)
    expect(await takenUp(keeper().k)).toEqual(is('three'))
  })

  it('offers as a whole what was written in steps that it cannot read', async () => {
    const { k } = keeper()
    await k.hold(is('mine'))
    await left(k)
    const { openDB } = await import('idb')
    const db = await openDB('undaris', 1)
    const [step] = (await db.getAll('steps')) as { slot: string; n: number; step: { v: number } }[]
    await db.put('steps', { ...step, step: { ...step!.step, v: 99 } })
    db.close()
    expect(await keeper().k.unsent()).toEqual([])
    await look()
    expect(offers.value.map((o) => o.mine)).toEqual([is('mine')])
  })

  it('goes on where the browser keeps nothing, and says so', async () => {
    vi.stubGlobal('indexedDB', {
      open: () => {
        throw new DOMException('denied', 'SecurityError')
      },
    })
    await openMemory()
    expect(trust.value).toBe('keeps nothing')
    const { k } = keeper()
    expect(await k.unsent()).toEqual([])
    expect(await k.hold(is('two'))).toBe(false)
    expect((await k.save(is('two'))).kept.title).toBe('two')
  })
})
