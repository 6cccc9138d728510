import { describe, expect, it } from 'vitest'
import { empty, possible, said, turned, without, type AimKind, type Draft } from './draft'

const kind = (id: string, of?: AimKind['of'], asks: AimKind['asks'] = [], usual = {}): AimKind => ({ id, name: id, of, asks, adds: false, unit: 'in a row', most: 100, usual: { kind: id, ...usual } }) // prettier-ignore
const kinds = [
  kind('changes', 'chart', ['mode', 'percent', 'tempo'], { mode: 'land', percent: 80 }),
  kind('line', 'line', ['percent', 'tempo'], { percent: 90 }),
  kind('exercise', 'exercise', ['percent', 'tempo'], { percent: 90 }),
  kind('calls', undefined, ['key', 'degree'], { degree: 'third' }),
  kind('minutes', undefined, [], { times: 60 }),
]
const named = (id: string) => kinds.find((k) => k.id === id)!

const exercise = (title: string, chart: number) => ({ title, chart, task: { drill: 'run', pace: 'eighths' } })
const full = (): Draft => ({
  ...empty(),
  title: 'Thirds',
  charts: [6, 5, 4],
  lines: [1, 2],
  exercises: [exercise('a', 1), exercise('b', 2), exercise('c', 3)],
  aims: [
    { kind: 'changes', chart: 1 },
    { kind: 'changes', chart: 3 },
    { kind: 'line', line: 2 },
    { kind: 'exercise', exercise: 2 },
    { kind: 'exercise', exercise: 3 },
  ],
})

describe('a draft of an assignment', () => {
  it('speaks of the same things when one before them is taken out', () => {
    const d = without(full(), 'charts', 2)
    expect(d.charts).toEqual([6, 4])
    expect(d.exercises).toEqual([exercise('a', 1), exercise('c', 2)])
    expect(d.aims).toEqual([
      { kind: 'changes', chart: 1 },
      { kind: 'changes', chart: 2 },
      { kind: 'line', line: 2 },
      { kind: 'exercise', exercise: 2 },
    ])
  })
  it('lets go of what spoke of a thing that is gone', () => {
    expect(without(full(), 'lines', 2).aims.map((a) => a.kind)).not.toContain('line')
    expect(without(full(), 'lines', 1).aims[2]).toEqual({ kind: 'line', line: 1 })
    const d = without(without(without(full(), 'charts', 1), 'charts', 1), 'charts', 1)
    expect(d.exercises).toEqual([])
    expect(d.aims).toEqual([{ kind: 'line', line: 2 }])
  })
  it('offers only what there is something for', () => {
    expect(possible(empty(), kinds).map((k) => k.id)).toEqual(['calls', 'minutes'])
    expect(possible(full(), kinds)).toHaveLength(kinds.length)
  })
  it('begins another kind of aim as usual, and keeps the tempo where both have one', () => {
    expect(turned({ kind: 'changes', chart: 2, tempo: 90 }, named('line'))).toEqual({
      kind: 'line',
      line: 1,
      percent: 90,
      tempo: 90,
    })
    expect(turned({ kind: 'changes', tempo: 90 }, named('minutes'))).toEqual({ kind: 'minutes', times: 60 })
    expect(turned({ kind: 'minutes' }, named('calls'))).toEqual({ kind: 'calls', degree: 'third', key: 'C' })
    expect(turned({ kind: 'minutes' }, named('calls'), 'Bm').key).toBe('B') // that of its chart
    for (const k of kinds) expect(turned({ kind: 'minutes' }, k).kind).toBe(k.id)
  })
  it('sends no empty words', () => {
    expect(said({ ...empty(), words: '  ' }).words).toBeUndefined()
  })
})
