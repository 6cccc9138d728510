import { describe, expect, it } from 'vitest'
import { canonical } from './canonical'
import { dice } from './dice'
import { apart, apply, diff, inOrder, inverse, over, readable, stepsVersion, type Change } from './steps'

/* Lines drawn at random, always the same ones. */
interface Line {
  title: string
  tempo?: number
  locked?: number[]
  notes: { id: number; start: number; string: number; fret: number; bend?: number; finger?: number }[]
}
type Dice = ReturnType<typeof dice>
const sorted = (line: Line): Line => ({ ...line, notes: inOrder([...line.notes]) }) // prettier-ignore
const draw = (d: Dice): Line =>
  sorted({
    title: `t${d.n(3)}`,
    tempo: d.n(2) ? 60 + d.n(5) : undefined,
    locked: d.n(2) ? [d.n(4)] : [],
    notes: Array.from({ length: d.n(6) }, (_, i) => ({ id: i + 1, start: i * 480, string: 1 + d.n(6), fret: d.n(12) })),
  })
let fresh = 100
/** Something done to it, at random. */
const deed = (d: Dice, line: Line): Line => {
  const i = d.n(Math.max(1, line.notes.length))
  switch (line.notes.length ? d.n(6) : d.n(2)) {
    case 0:
      return { ...line, title: `u${d.n(9)}` }
    case 1:
      return sorted({ ...line, notes: [...line.notes, { id: ++fresh, start: d.n(4000), string: 1, fret: d.n(12) }] })
    case 2:
      return { ...line, notes: line.notes.filter((_, j) => j !== i) }
    case 3:
      return { ...line, notes: line.notes.map((n, j) => (j === i ? { ...n, bend: 1 + d.n(3) } : n)) }
    case 4:
      return { ...line, tempo: d.n(2) ? undefined : 100 + d.n(9) }
    default:
      return { ...line, notes: line.notes.map((n, j) => (j === i ? { ...n, fret: d.n(24), finger: 1 + d.n(4) } : n)) }
  }
}
const many = (d: Dice, line: Line, times: number) => Array.from({ length: times }).reduce<Line>((l) => deed(d, l), line)
const same = (a: unknown, b: unknown) => expect(canonical(a)).toBe(canonical(b))

/** Without what the core says of notes, which is as it says it last. */
const nobodys = (line: Line): Line => ({ ...line, notes: line.notes.map((n) => ({ ...n, finger: undefined })) })

describe('steps', () => {
  it('make one of the other, and are taken back, over 2,000 pairs', () => {
    for (let seed = 0; seed < 2000; seed++) {
      const d = dice(seed)
      const a = draw(d)
      const b = many(d, a, 1 + d.n(5))
      const step = diff(a, b)
      same(apply(step, a), b)
      same(apply(inverse(step), b), a)
      same(apply(JSON.parse(JSON.stringify(step)) as Change[], a), b) // a stored one does the same
    }
  })

  it('taken back over what was joined from elsewhere leave theirs and nothing of mine, over 2,000 pairs', () => {
    for (let seed = 0; seed < 2000; seed++) {
      const d = dice(seed)
      const a = draw(d)
      const mine = diff(a, many(d, a, 1 + d.n(3)))
      const theirs = diff(a, many(d, a, 1 + d.n(3)))
      if (apart(theirs, mine)) {
        const joined = apply(theirs, apply(mine, a))
        same(nobodys(joined), nobodys(apply(mine, apply(theirs, a)))) // in whatever order they came
        same(nobodys(apply(inverse(over(theirs, mine)), joined)), nobodys(apply(theirs, a)))
      } else {
        // Theirs took the place: what is left of mine touches none of it.
        const there = apply(theirs, a)
        const left = over(theirs, mine)
        expect(left.length).toBeLessThanOrEqual(mine.length)
        same(nobodys(apply(inverse(left), apply(left, there))), nobodys(there))
      }
    }
  })

  it('says what it touched of each kind', () => {
    const note = { id: 7, start: 0 }
    const alter = (field: string): Change => ({ kind: 'alter', id: 7, from: {}, to: { [field]: 1 } })
    const set = (field: string): Change => ({ kind: 'set', field, from: 1, to: 2 })
    expect(over([set('title')], [set('title'), set('key')])).toEqual([set('key')])
    expect(over([alter('fret')], [alter('fret'), alter('bend')])).toEqual([alter('bend')])
    expect(over([alter('fret')], [{ kind: 'put', note }])).toEqual([]) // they went on with it
    expect(over([{ kind: 'drop', note }], [alter('bend')])).toEqual([])
    expect(over([alter('finger')], [alter('finger'), { kind: 'put', note }])).toHaveLength(2) // the core's, nobody's
  })

  it('reads its own, and nothing else', () => {
    const good = { v: stepsVersion, name: 'note', changes: [{ kind: 'set', field: 'title', from: 1, to: 2 }, { kind: 'put', note: { id: 1 } }, { kind: 'alter', id: 1, from: {}, to: {} }] } // prettier-ignore
    expect(readable(good)).toBe(true)
    for (const bad of [
      { ...good, v: 2 },
      { ...good, name: 5 },
      { ...good, changes: {} },
      { ...good, changes: [{ kind: 'turn' }] },
      { ...good, changes: [{ kind: 'put' }] },
      undefined,
      'step',
    ])
      expect(readable(bad)).toBe(false)
  })
})
