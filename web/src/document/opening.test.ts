import { effectScope, nextTick, ref, shallowRef } from 'vue'
import { describe, expect, it, vi } from 'vitest'
import type { Keeper } from '../api/keeper'
import type { Change } from './steps'
import { useOpening } from './useOpening'

/* Whatever is told, that it was told is what is tried here. */
let told: () => unknown = () => {}
vi.mock('./useNews', () => ({ useNews: (_: unknown, __: unknown, fresh: () => unknown) => (told = fresh) }))

interface Kept {
  id: number
  version: string
  title: string
}

describe('what other tabs have kept', () => {
  async function opened(there: Kept, meanwhile = '') {
    const mine: Kept = { id: 7, version: 'data.1.1', title: 'Slipway' }
    let version = mine.version
    const joined: Change[][] = []
    effectScope().run(() =>
      useOpening<{ title: string }, Kept>({
        stored: {
          data: ref(mine),
          refetch: async () => {
            if (meanwhile) version = meanwhile
            return { data: there }
          },
        },
        keeper: () =>
          ({
            at: (k: Kept) => (version = k.version),
            version: () => version,
            unsent: () => Promise.resolve([]),
            leave: () => {},
          }) as unknown as Keeper<{ title: string }, Kept>,
        path: (id) => `/lines/${id}`,
        part: ({ title }) => ({ title }),
        open: () => {},
        bring: () => {},
        body: shallowRef({ title: mine.title }),
        state: ref('saved'),
        join: (theirs) => joined.push(theirs),
      }),
    )
    await nextTick()
    await told()
    return { joined, version }
  }

  it('is shown where it is newer than what is here', async () => {
    const tab = await opened({ id: 7, version: 'data.1.2', title: 'Slip' })
    expect([tab.joined.length, tab.version]).toEqual([1, 'data.1.2'])
  })

  // A library at another address tells of its own thing under the same number: nothing is newer here.
  it('changes nothing where what is kept is what is here', async () => {
    const tab = await opened({ id: 7, version: 'data.1.1', title: 'as it was kept' })
    expect([tab.joined, tab.version]).toEqual([[], 'data.1.1'])
  })

  it('changes nothing where another database is open', async () => {
    const tab = await opened({ id: 7, version: 'other.1.2', title: 'Slip' })
    expect([tab.joined, tab.version]).toEqual([[], 'data.1.1'])
  })

  // What was read before that is older: to show it would take back what was done since.
  it('changes nothing where something was kept here while it was asked for', async () => {
    const tab = await opened({ id: 7, version: 'data.1.2', title: 'as it was' }, 'data.1.3')
    expect([tab.joined, tab.version]).toEqual([[], 'data.1.3'])
  })
})

// What stands in the hand while the next thing is being opened is still the one before: the old keeper has it, the new one never.
describe('a thing that is opened after another in the same hand', () => {
  it('has nothing written to it of the one before, which is kept as itself', async () => {
    const data = ref<Kept>({ id: 1, version: 'data.1.1', title: 'one' })
    const body = shallowRef<{ title: string }>()
    const state = ref('saved')
    const kept: string[] = []
    let open = () => {}
    const hand = effectScope().run(() =>
      useOpening<{ title: string }, Kept>({
        stored: { data, refetch: async () => ({ data: data.value }) },
        keeper: (k) =>
          ({
            at: () => {},
            version: () => k.version,
            unsent: () => Promise.resolve([]),
            save: (b: { title: string }) => kept.push(`${k.id}: ${b.title}`),
            saveLast: (b: { title: string }) => kept.push(`${k.id}: ${b.title}, at last`),
            leave: () => {},
          }) as unknown as Keeper<{ title: string }, Kept>,
        path: (id) => `/lines/${id}`,
        part: ({ title }) => ({ title }),
        open: (k) => new Promise<void>((done) => (open = () => done(void (body.value = { title: k.title })))),
        bring: () => {},
        body,
        state,
        join: () => {},
        resume: () => kept.push('resumed'),
      }),
    )!
    const save = () => body.value && void hand.keeper()?.save(body.value)
    save()
    open()
    await new Promise((r) => setTimeout(r))
    save()
    body.value = { title: 'one, changed' }
    state.value = 'saving'
    data.value = { id: 2, version: 'data.2.1', title: 'two' }
    await nextTick()
    save() // what was to be kept of one comes while two is being opened
    open()
    await new Promise((r) => setTimeout(r))
    save()
    expect(kept).toEqual(['1: one', '1: one, changed, at last', 'resumed', '2: two'])
  })
})
