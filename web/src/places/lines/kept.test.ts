/* What is said to be saved is what is kept, in whatever order the core, the server and the player come. */
import { describe, expect, it, vi } from 'vitest'
import { effectScope } from 'vue'
import type { LineBody, Study } from '../../api/client'
import type { Keeps } from '../../document/useAutosave'
import { dice } from '../../document/dice'
import { useLine } from './useLine'

const asked: (() => void)[] = []
const later = <T>(list: (() => void)[], what: T) => new Promise<T>((go) => list.push(() => go(what)))
const studied = (line: LineBody) => ({ line, score: { notes: [], measures: [] }, said: [] }) as unknown as Study
vi.mock('../../api/kept', () => ({
  askLine: { study: (line: LineBody) => later(asked, studied(line)) },
  lineBody: (l: LineBody) => l,
}))

const blank = { title: '', notes: [], locked: [], exercise: '' } as unknown as LineBody

/* A line in a hand, a core and a server that answer when they are let. */
async function hand() {
  const sent: (() => void)[] = []
  const there: { now?: LineBody } = {}
  const by: Keeps<LineBody> = {
    save: async (body) => {
      await later(sent, 0)
      there.now = body
      return later(sent, { kept: body, how: 'sent' as const })
    },
    saveLast: () => {},
    rewind: () => {},
    hold: async () => true,
  }
  const scope = effectScope()
  const state = scope.run(() => useLine(() => by))!
  const opened = state.open(blank)
  asked.shift()!()
  await opened
  const turn = () => vi.advanceTimersByTimeAsync(0)
  const rest = async () => {
    for (let i = 0; i < 40; i++) {
      asked.shift()?.()
      sent.shift()?.()
      await vi.advanceTimersByTimeAsync(600)
    }
  }
  return { state, there, sent, turn, rest, end: () => scope.stop() }
}

describe('a line that is said to be saved', () => {
  it('is kept when the answer to a question comes after the save before it', async () => {
    vi.useFakeTimers()
    const { state, there, sent, turn, rest, end } = await hand()
    state.change({ title: 'written' })
    asked.shift()!()
    await turn()
    await vi.advanceTimersByTimeAsync(600)
    expect(sent.length).toBe(1)
    const core: (() => void)[] = []
    void state.take(later(core, studied({ ...blank, title: 'laid', exercise: 'run' })))
    sent.shift()!()
    await turn()
    sent.shift()!()
    await turn()
    core.shift()!()
    await rest()
    expect([state.state.value, there.now?.exercise]).toEqual(['saved', 'run'])
    end()
    vi.useRealTimers()
  })

  it('is what is kept, over 400 evenings of orders and delays', async () => {
    vi.useFakeTimers()
    for (let seed = 1; seed <= 400; seed++) {
      const roll = dice(seed)
      const h = await hand()
      const core: (() => void)[] = []
      for (let step = 0; step < 30; step++) {
        const pick = roll.n(8)
        if (pick === 0) h.state.change({ title: `${seed}.${step}` })
        else if (pick === 1) void h.state.take(later(core, studied({ ...h.state.line.value!, exercise: `${step}` })))
        else if (pick === 2) h.state.undo()
        else if (pick === 3) asked.shift()?.()
        else if (pick === 4) core.shift()?.()
        else if (pick < 7) h.sent.shift()?.()
        else await vi.advanceTimersByTimeAsync(600 * roll.next())
        await h.turn()
        if (h.state.state.value === 'saved' && h.there.now)
          expect(h.state.line.value, `${seed} at ${step}`).toEqual(h.there.now)
      }
      for (const go of core) go()
      await h.rest()
      expect(h.state.state.value, String(seed)).toBe('saved')
      if (h.there.now) expect(h.state.line.value, String(seed)).toEqual(h.there.now)
      h.end()
      asked.length = 0
    }
    vi.useRealTimers()
  })
})
