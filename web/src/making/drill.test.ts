import { describe, expect, it } from 'vitest'
import { asksOf, entries, standing, taskOf, usual, type Ask } from './drill'

const ask = (id: string, kind: Ask['kind'], options: [string, string][] = [], needs?: string): Ask => ({
  id,
  kind,
  needs,
  name: id,
  options: options.map(([id, name]) => ({ id, name })),
})
const from = ask('from', 'list', [['', 'lowest'], ['R', 'root'], ['3', 'third']]) // prettier-ignore
const until = ask('until', 'list', [['0', 'none'], ['1', 'one'], ['2', 'two']]) // prettier-ignore
const approach = ask('approach', 'list', [['', 'nothing'], ['below', 'below']]) // prettier-ignore
const into = ask('into', 'list', [['', 'every'], ['fifth', 'the fifth']], 'approach') // prettier-ignore
const choices = [from, ask('order', 'number'), ask('cell', 'steps'), approach, into, until, ask('down', 'switch')]
const drill = (id: string, offers: string[]) => ({ id, name: id, about: '', group: 'g', words: '', offers })
const catalogue = {
  choices,
  drills: [drill('all', choices.map((c) => c.id)), drill('few', ['until', 'into']), drill('none', [])], // prettier-ignore
}

describe('an exercise', () => {
  it('asks only what acts on it, and what needs another only behind it', () => {
    const ids = (d: string, asked = {}) => asksOf(catalogue, d, asked).map((a) => a.id)
    expect(ids('none')).toEqual([])
    expect(ids('another')).toEqual([])
    expect(ids('few')).toEqual(['until']) // into needs an approach, which is not offered
    expect(ids('all')).not.toContain('into')
    expect(ids('all', { approach: usual })).not.toContain('into')
    expect(ids('all', { approach: 'below' })).toContain('into')
  })

  it('is sent with what is not usual, in the kinds that the core wants', () => {
    const task = (asked: Record<string, string | number | boolean>, d = 'all') => taskOf(catalogue, d, 'eighths', asked)
    expect(task({})).toEqual({ drill: 'all', pace: 'eighths' })
    expect(task({ from: usual, until: '0', order: 0, cell: '', down: false })).toEqual({
      drill: 'all',
      pace: 'eighths',
    })
    expect(task({ from: '3', until: '2', order: 7, cell: '1 3, 2', down: true, approach: 'below', into: 'fifth' })).toEqual({
      drill: 'all', pace: 'eighths', from: '3', until: 2, order: 7, cell: [1, 3, 2], down: true, approach: 'below', into: 'fifth',
    }) // prettier-ignore
    // What belongs to another exercise stays where it is, and is not sent.
    expect(task({ from: 'R', until: '1', down: true }, 'few')).toEqual({ drill: 'few', pace: 'eighths', until: 1 })
    expect(task({ cell: Array(40).fill('2').join(' ') }).cell).toHaveLength(16)
  })

  it('stands at what is usual where something is not known, also what was kept before', () => {
    expect(standing(from, {})).toBe(usual)
    expect(standing(from, { from: 'lowest' })).toBe(usual)
    expect(standing(until, { until: 2 })).toBe('2')
    expect(standing(until, { until: 9 })).toBe('0')
    expect(entries(from).map((e) => e.id)).toEqual([usual, 'R', '3'])
    expect(entries(until)[0]!.id).toBe('0')
  })
})
