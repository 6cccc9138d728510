import { describe, expect, it } from 'vitest'
import type { LineBody, LineNote } from '../api/client'
import { differences, mergeFields, mergeLines } from './merge'

const note = (id: number, start: number, more: Partial<LineNote> = {}): LineNote => ({
  id,
  start,
  length: 480,
  string: 3,
  fret: 5,
  note: 'C4',
  ...more,
})
const line = (notes: LineNote[], more: Partial<LineBody> = {}) =>
  ({ title: 'one', key: 'C', text: '| C7 |', notes, ...more }) as unknown as LineBody
const base = line([note(1, 0), note(2, 480), note(3, 960)])
const starts = (l?: LineBody) => l?.notes.map((n) => [n.start, n.fret, n.bend ?? 0])

describe('two changes of one line', () => {
  it.each<[string, LineBody, LineBody, unknown]>([
    [
      'of different notes',
      line([note(1, 0, { bend: 2 }), note(2, 480), note(3, 960)]),
      line([note(1, 0), note(2, 480), note(3, 960, { fret: 7 })]),
      [
        [0, 5, 2],
        [480, 5, 0],
        [960, 7, 0],
      ],
    ],
    [
      'one adds, one deletes',
      line([...base.notes, note(4, 1440)]),
      line([note(1, 0), note(3, 960)]),
      [
        [0, 5, 0],
        [960, 5, 0],
        [1440, 5, 0],
      ],
    ],
    [
      'both add, under the same number',
      line([...base.notes, note(4, 1440)]),
      line([...base.notes, note(4, 1920)]),
      [
        [0, 5, 0],
        [480, 5, 0],
        [960, 5, 0],
        [1440, 5, 0],
        [1920, 5, 0],
      ],
    ],
    [
      'both make the same change',
      line([note(1, 0, { fret: 8 }), note(2, 480), note(3, 960)]),
      line([note(1, 0, { fret: 8, finger: 2 }), note(2, 480), note(3, 960)]),
      [
        [0, 8, 0],
        [480, 5, 0],
        [960, 5, 0],
      ],
    ],
    [
      "fingers are the core's",
      line([note(1, 0, { finger: 1 }), note(2, 480, { bend: 1 }), note(3, 960)]),
      line([note(1, 0, { finger: 3 }), note(2, 480, { finger: 2 }), note(3, 960)]),
      [
        [0, 5, 0],
        [480, 5, 1],
        [960, 5, 0],
      ],
    ],
    [
      'of one note',
      line([note(1, 0, { fret: 7 }), note(2, 480), note(3, 960)]),
      line([note(1, 0, { fret: 8 }), note(2, 480), note(3, 960)]),
      undefined,
    ],
    [
      'one changes what the other deletes',
      line([note(1, 0, { fret: 7 }), note(2, 480), note(3, 960)]),
      line([note(2, 480), note(3, 960)]),
      undefined,
    ],
    [
      'two notes at one place',
      line([...base.notes, note(4, 1440, { fret: 3 })]),
      line([...base.notes, note(4, 1440)]),
      undefined,
    ],
  ])('%s', (_, mine, theirs, want) => {
    expect(starts(mergeLines(base, mine, theirs))).toEqual(want)
    expect(starts(mergeLines(base, theirs, mine))).toEqual(want)
  })

  it('are not joined where the notes had no numbers', () => {
    const bare = line(base.notes.map((n) => ({ ...n, id: undefined })))
    expect(mergeLines(bare, base, line([note(1, 0)]))).toBeUndefined()
  })

  it('joins fields that one side alone has changed', () => {
    expect(mergeLines(base, line(base.notes, { title: 'mine' }), line([note(1, 0)], { key: 'F' }))).toMatchObject({
      title: 'mine',
      key: 'F',
      notes: [{ id: 1 }],
    })
    expect(mergeLines(base, line(base.notes, { title: 'mine' }), line(base.notes, { title: 'theirs' }))).toBeUndefined()
    expect(mergeFields({ a: 1, b: 2 }, { a: 3, b: 2 }, { a: 1, b: 4 })).toEqual({ a: 3, b: 4 })
  })

  it('says in words what differs', () => {
    expect(differences(line(base.notes, { title: 'mine', tempo: 90 }), line([note(1, 0)]))).toBe(
      'the title, the notes (3 here, 1 there) and the tempo',
    )
    expect(differences(base, line([...base.notes]))).toBe('')
  })
})

describe('a note that loses its slide because the one before it is taken away', () => {
  const slid = line([note(1, 0), note(2, 480, { join: 'slide', fret: 7 }), note(3, 960)])
  const without = line([note(2, 480, { fret: 7 }), note(3, 960)])

  it('counts as untouched: the other may delete it, or change it', () => {
    expect(starts(mergeLines(slid, line([note(1, 0), note(3, 960)]), without))).toEqual([[960, 5, 0]])
    expect(starts(mergeLines(slid, without, line([note(1, 0), note(3, 960)])))).toEqual([[960, 5, 0]])
    const bent = line([note(1, 0), note(2, 480, { join: 'slide', fret: 7, bend: 2 }), note(3, 960)])
    const joined = mergeLines(slid, bent, without)!
    expect(starts(joined)).toEqual([
      [480, 7, 2],
      [960, 5, 0],
    ])
    expect(joined.notes[0]!.join).toBeUndefined()
  })

  it('is still a conflict where one gives it another way to be reached', () => {
    const hammered = line([note(1, 0), note(2, 480, { join: 'hammer-on', fret: 7 }), note(3, 960)])
    const pulled = line([note(1, 0), note(2, 480, { join: 'pull-off', fret: 7 }), note(3, 960)])
    expect(mergeLines(slid, hammered, pulled)).toBeUndefined()
  })
})
