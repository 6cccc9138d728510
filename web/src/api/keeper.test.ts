import { beforeEach, describe, expect, it, vi } from 'vitest'
import { Changed, Refused } from './client'
import { useKeeper, type Decision } from './keeper'

interface Thing {
  version: number
  title: string
  beside: number
}
/* A server that keeps one thing. */
const server = { now: {} as Thing, gone: false, slow: [] as (() => void)[], hold: false }
const put = vi.fn(async (title: string, ifMatch: string) => {
  if (server.hold) await new Promise<void>((go) => server.slow.push(go))
  if (server.gone) throw new Refused('Undaris does not answer.', {}, 0)
  if (title === '') throw new Refused('a title is needed', {}, 422)
  if (ifMatch !== `"${server.now.version}"`) throw new Changed('changed elsewhere', { ...server.now })
  server.now = { ...server.now, title, version: server.now.version + 1 }
  return { ...server.now }
})
const stored = new Map<string, string>()
beforeEach(() => {
  server.now = { version: 4, title: 'one', beside: 0 }
  Object.assign(server, { gone: false, hold: false, slow: [] })
  put.mockClear()
  stored.clear()
  vi.stubGlobal('localStorage', {
    getItem: (k: string) => stored.get(k) ?? null,
    setItem: (k: string, v: string) => void stored.set(k, v),
    removeItem: (k: string) => void stored.delete(k),
  })
})
const copies: string[] = []
const keeper = (decision: Decision = 'mine', ask = vi.fn(() => Promise.resolve(decision))) => {
  const k = useKeeper<string, Thing>({
    path: '/thing',
    what: 'The thing',
    put,
    part: (t) => t.title,
    ask,
    merge: (base, mine, theirs) =>
      base === 'left right' && mine === 'LEFT right' && theirs === 'left RIGHT' ? 'LEFT RIGHT' : undefined,
    copy: (b) => Promise.resolve(copies.push(b)),
  })
  k.at({ ...server.now })
  return { k, ask }
}
const elsewhere = (change: Partial<Thing>) =>
  (server.now = { ...server.now, ...change, version: server.now.version + 1 })

describe('a keeper', () => {
  it('saves one after the other, each on the version the one before made', async () => {
    const { k } = keeper()
    server.hold = true
    const all = [k.save('two'), k.save('three'), k.save('four')]
    for (let i = 0; i < 3; i++) {
      await vi.waitFor(() => expect(server.slow.length).toBe(1))
      server.slow.pop()!()
      await all[i]
    }
    expect(put.mock.calls.map((c) => c[1])).toEqual(['"4"', '"5"', '"6"'])
    expect(server.now.title).toBe('four')
    expect(stored.size).toBe(0)
  })

  it('joins without asking where only something beside it was changed', async () => {
    const { k, ask } = keeper()
    elsewhere({ beside: 7 })
    expect(await k.save('two')).toEqual({ kept: { version: 6, title: 'two', beside: 7 }, theirs: false })
    expect(ask).not.toHaveBeenCalled()
  })

  it('asks where the same was changed, and does as the player says', async () => {
    for (const decision of ['mine', 'theirs'] as const) {
      server.now = { version: 4, title: 'one', beside: 0 }
      const { k, ask } = keeper(decision)
      elsewhere({ title: 'theirs' })
      const { kept, theirs } = await k.save('mine')
      expect(ask).toHaveBeenCalledTimes(1)
      expect([kept.title, theirs, server.now.title]).toEqual([decision, decision === 'theirs', decision])
      expect((await k.save('later')).kept.title).toBe('later')
    }
  })

  it('keeps both where the player wants both', async () => {
    const { k } = keeper('both')
    elsewhere({ title: 'theirs' })
    expect(await k.save('mine')).toMatchObject({ theirs: true, kept: { title: 'theirs' } })
    expect([server.now.title, copies]).toEqual(['theirs', ['mine']])
  })

  it('joins two changes that touch different parts, and shows the whole', async () => {
    server.now.title = 'left right'
    const { k, ask } = keeper()
    elsewhere({ title: 'left RIGHT' })
    expect(await k.save('LEFT right')).toMatchObject({ theirs: true, kept: { title: 'LEFT RIGHT' } })
    expect([server.now.title, ask.mock.calls.length, stored.size]).toEqual(['LEFT RIGHT', 0, 0])
  })

  it('does not ask where both made the same change', async () => {
    const { k, ask } = keeper()
    elsewhere({ title: 'two' })
    expect((await k.save('two')).theirs).toBe(false)
    expect(ask).not.toHaveBeenCalled()
  })

  it('keeps in the browser what is not confirmed, and brings it back', async () => {
    const { k } = keeper()
    server.gone = true
    await expect(k.save('two')).rejects.toThrow('does not answer')
    server.gone = false
    const again = keeper().k
    expect(again.unsent()).toBe('two')
    await again.save('two')
    expect([server.now.title, stored.size]).toEqual(['two', 0])
    expect(keeper().k.unsent()).toBeUndefined()
  })

  it('asks before what was brought back takes the place of a newer change', async () => {
    server.gone = true
    await expect(keeper().k.save('mine')).rejects.toThrow()
    server.gone = false
    elsewhere({ title: 'theirs' })
    const { k, ask } = keeper('theirs')
    expect(await k.save(k.unsent()!)).toMatchObject({ theirs: true, kept: { title: 'theirs' } })
    expect(ask).toHaveBeenCalledTimes(1)
  })

  it('forgets what the server will never take', async () => {
    const { k } = keeper()
    await expect(k.save('')).rejects.toThrow('a title is needed')
    expect(stored.size).toBe(0)
    expect((await k.save('two')).kept.title).toBe('two')
  })

  it('saves as the page is left, on the version that the save under way makes', async () => {
    const { k } = keeper()
    server.hold = true
    void k.save('two')
    await vi.waitFor(() => expect(server.slow.length).toBe(1))
    k.saveLast('three')
    await vi.waitFor(() => expect(server.slow.length).toBe(2))
    server.slow.forEach((go) => go())
    await vi.waitFor(() => expect(stored.size).toBe(0))
    expect([server.now.title, put.mock.calls[1]![1]]).toEqual(['three', '"5"'])
  })

  it('keeps what is put by while an earlier save is confirmed', async () => {
    const { k } = keeper()
    server.hold = true
    const done = k.save('two')
    await vi.waitFor(() => expect(server.slow.length).toBe(1))
    k.hold('three')
    server.slow.pop()!()
    await done
    expect(keeper().k.unsent()).toBe('three')
  })

  it('has later saves wait for the one that was sent as the page was left', async () => {
    const { k, ask } = keeper()
    server.hold = true
    k.saveLast('two')
    const later = k.save('three')
    await vi.waitFor(() => expect(server.slow.length).toBe(1))
    server.hold = false
    server.slow.pop()!()
    expect((await later).kept).toMatchObject({ title: 'three', version: 6 })
    expect(ask).not.toHaveBeenCalled()
  })

  it('goes on where the browser keeps nothing', async () => {
    vi.stubGlobal('localStorage', {
      getItem: () => {
        throw new Error('private')
      },
      setItem: () => {
        throw new Error('full')
      },
      removeItem: () => {
        throw new Error('private')
      },
    })
    const { k } = keeper()
    expect(k.unsent()).toBeUndefined()
    expect((await k.save('two')).kept.title).toBe('two')
  })
})
