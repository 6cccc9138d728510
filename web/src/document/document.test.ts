import { beforeEach, describe, expect, it, vi } from 'vitest'
import { Refused, Turned, type LineBody, type LineNote, type Study } from '../api/client'
import { alter, around, change, confirm, insert, move, remove } from './notes'
import { useDocument, type Command } from './useDocument'

/* A core that answers when it is let, in order or not: it numbers and names notes and finds fingers, as the real one
   does. */
const numbered = (notes: LineNote[]) => {
  const taken = new Set<number>()
  let last = Math.max(0, ...notes.map((n) => n.id ?? 0))
  return notes.map((n) => {
    const id = n.id && !taken.has(n.id) ? n.id : ++last
    taken.add(id)
    return { ...n, id }
  })
}
const answered = (line: LineBody): Study =>
  ({
    line,
    score: {
      notes: numbered(line.notes).map((n) => ({
        ...n,
        note: `E${n.fret}`,
        finger: 1 + ((n.fret ?? 0) % 4),
        midi: 64,
        degree: '3',
      })),
    },
    said: [],
  }) as unknown as Study
const refuses = (line: LineBody) => line.notes.some((n) => (n.fret ?? 0) > 22)

interface Asked {
  body: LineBody
  answer: () => void
  fail: (e: Error) => void
}
let asked: Asked[] = []
const ask = (body: LineBody) =>
  new Promise<Study>((answer, fail) => {
    asked.push({
      body,
      answer: () => (refuses(body) ? fail(new Refused('beyond the neck', {}, 422)) : answer(answered(body))),
      fail,
    })
  })
const turn = () => new Promise((r) => setTimeout(r, 0))
async function answerNext() {
  asked.shift()!.answer()
  await turn()
}
async function answerAll() {
  while (asked.length) await answerNext()
}
const at = (id: number, start: number, fret = 5, string = 3): LineNote => ({
  id,
  start,
  length: 480,
  string,
  fret,
  note: '',
  finger: 0,
})
const body = (notes: LineNote[] = []) => ({ title: 'one', text: '| C7 |', notes }) as unknown as LineBody
const gist = (line?: LineBody) => line?.notes.map((n) => [n.id, n.start, n.string, n.fret])

async function opened(notes: LineNote[] = []) {
  const doc = useDocument(ask)
  const done = doc.open(body(notes))
  await answerNext()
  await done
  return doc
}
beforeEach(() => void (asked = []))

describe('a document', () => {
  it('takes a command at once, and asks afterwards', async () => {
    const doc = await opened()
    doc.run(insert(at(doc.newId(), 0)))
    expect(gist(doc.line.value)).toEqual([[1, 0, 3, 5]])
    expect(doc.ahead.value.fresh).toHaveLength(1)
    await answerAll()
    expect(doc.line.value!.notes[0]).toMatchObject({ note: 'E5', finger: 2 })
    expect(doc.ahead.value.fresh).toHaveLength(0)
  })

  it('keeps what is done while an answer is under way, and gives it what the answer knows', async () => {
    const doc = await opened()
    const [a, b, c] = [doc.newId(), doc.newId(), doc.newId()]
    doc.run(insert(at(a, 0)))
    doc.run(insert(at(b, 480)))
    doc.run(alter(a, 'bend', () => ({ bend: 2 })))
    doc.run(insert(at(c, 960)))
    expect(asked).toHaveLength(1) // one question at a time
    await answerNext()
    expect(gist(doc.line.value)).toEqual([a, b, c].map((id, i) => [id, i * 480, 3, 5]))
    expect(doc.line.value!.notes[0]).toMatchObject({ bend: 2, note: 'E5' })
    await answerAll()
    expect(doc.pending.value).toBe(0)
    expect(doc.line.value!.notes).toHaveLength(3)
  })

  it('leaves out the one command that is refused, says why, and keeps the rest', async () => {
    const doc = await opened()
    const ids = [1, 2, 3].map(() => doc.newId())
    doc.run(insert(at(ids[0]!, 0)))
    await answerAll()
    doc.run(insert(at(ids[1]!, 480, 40)))
    doc.run(insert(at(ids[2]!, 960)))
    doc.run(alter(ids[0]!, 'vibrato', () => ({ vibrato: true })))
    await answerAll()
    expect(gist(doc.line.value)).toEqual([
      [ids[0], 0, 3, 5],
      [ids[2], 960, 3, 5],
    ])
    expect(doc.line.value!.notes[0]!.vibrato).toBe(true)
    expect(doc.trouble.value).toBe('Note: beyond the neck')
  })

  it('keeps what is done while another database is open: it is not the command that is refused', async () => {
    const doc = await opened()
    doc.run(insert(at(doc.newId(), 0)))
    for (const e of [
      new Turned('something else is open', {}, 412),
      new Refused('busy', {}, 503),
      new Refused('', {}, 408),
    ]) {
      asked.shift()!.fail(e)
      await turn()
      expect([doc.cut.value, gist(doc.line.value)]).toEqual([true, [[1, 0, 3, 5]]])
      await vi.waitFor(() => expect(asked).toHaveLength(1), 3000)
    }
    await answerAll()
    expect([doc.cut.value, gist(doc.line.value), doc.pending.value]).toEqual([false, [[1, 0, 3, 5]], 0])
  })

  it('goes back and forth by name', async () => {
    const doc = await opened([at(1, 0), at(2, 480)])
    doc.run(alter(1, 'bend', () => ({ bend: 4 })))
    doc.run(remove(2))
    await answerAll()
    expect(doc.undoName.value).toBe('deletion')
    doc.undo()
    expect(gist(doc.line.value)).toHaveLength(2)
    expect([doc.undoName.value, doc.redoName.value]).toEqual(['bend', 'deletion'])
    doc.undo()
    await answerAll()
    expect(doc.line.value!.notes[0]!.bend).toBeUndefined()
    expect(doc.canUndo.value).toBe(false)
    doc.redo()
    doc.redo()
    await answerAll()
    expect(gist(doc.line.value)).toEqual([[1, 0, 3, 5]])
    expect(doc.line.value!.notes[0]!.bend).toBe(4)
  })

  it('takes what the core made, but not over what was done meanwhile', async () => {
    const doc = await opened([at(1, 0)])
    let give!: (s: Study) => void
    const slow = doc.take(new Promise<Study>((r) => (give = r)), 'writing')
    doc.run(insert(at(doc.newId(), 480)))
    give(answered(body([at(0, 0, 9)])))
    await slow
    expect(doc.line.value!.notes).toHaveLength(2)
    expect(doc.trouble.value).toContain('You went on writing')
    await answerAll()
    await doc.take(Promise.resolve(answered(body([at(0, 0, 9), at(0, 480, 9)]))), 'writing')
    expect(doc.undoName.value).toBe('writing')
    expect(new Set(doc.line.value!.notes.map((n) => n.id)).size).toBe(2)
    doc.undo()
    expect(gist(doc.line.value)).toEqual([
      [1, 0, 3, 5],
      [2, 480, 3, 5],
    ])
  })

  it('goes on asking while the core does not answer', async () => {
    vi.useFakeTimers()
    const doc = useDocument(ask)
    const done = doc.open(body())
    asked.shift()!.answer()
    await done
    doc.run(insert(at(doc.newId(), 0)))
    asked.shift()!.fail(new Refused('Undaris does not answer.', {}, 0))
    await vi.advanceTimersByTimeAsync(100)
    expect([doc.cut.value, doc.pending.value, gist(doc.line.value)!.length]).toEqual([true, 1, 1])
    await vi.advanceTimersByTimeAsync(1000)
    asked.shift()!.answer()
    await vi.advanceTimersByTimeAsync(10)
    expect([doc.cut.value, doc.pending.value]).toEqual([false, 0])
    vi.useRealTimers()
  })

  /* Seeded, so that a failure comes again. */
  function dice(seed: number) {
    return (n: number) => {
      seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0
      return Math.floor((seed / 2 ** 32) * n)
    }
  }

  it('agrees with a model that only applied the commands, over bursts of random edits and late, failing answers', async () => {
    vi.useFakeTimers()
    for (const seed of [1, 2, 3, 4, 5, 6]) {
      const roll = dice(seed)
      const doc = useDocument(async (line) => {
        await new Promise((r) => setTimeout(r, roll(2000)))
        if (roll(5) === 0) throw new Refused('Undaris does not answer.', {}, 0)
        return answered(line)
      })
      let open = false
      while (!open)
        await Promise.all([
          doc.open(body([at(1, 0), at(2, 480)])).then(
            () => (open = true),
            () => undefined,
          ),
          vi.advanceTimersByTimeAsync(2500),
        ])
      let model = doc.line.value!
      const past: LineBody[] = []
      let future: LineBody[] = []
      for (let i = 0; i < 300; i++) {
        const some = model.notes[roll(Math.max(1, model.notes.length))]
        const dice = roll(10)
        if (dice < 7 || !some) {
          const commands: Command[] = [
            insert(at(doc.newId(), roll(40) * 240, roll(15), 1 + roll(6))),
            ...(some
              ? [
                  alter(some.id!, 'bend', () => ({ bend: roll(5) })),
                  alter(some.id!, 'length', () => ({ length: 240 * (1 + roll(6)) })),
                  move(some.id!, roll(40) * 240),
                  remove(some.id!),
                  confirm(),
                  change('lock', { locked: [roll(4)] }),
                ]
              : []),
          ]
          const c = commands[roll(commands.length)]!
          const fixed = roll(1000)
          const apply =
            c.name === 'bend'
              ? alter(some!.id!, 'bend', () => ({ bend: fixed % 5 }))
              : c.name === 'length'
                ? alter(some!.id!, 'length', () => ({ length: 240 * (1 + (fixed % 6)) }))
                : c
          past.push(model)
          future = []
          model = apply.apply(model)
          doc.run(apply)
        } else if (dice < 9 && past.length) {
          future.unshift(model)
          model = past.pop()!
          doc.undo()
        } else if (future.length) {
          past.push(model)
          model = future.shift()!
          doc.redo()
        }
        if (roll(3) === 0) await vi.advanceTimersByTimeAsync(roll(900))
        expect(gist(doc.line.value), `seed ${seed}, step ${i}`).toEqual(gist(model))
      }
      await vi.advanceTimersByTimeAsync(60_000)
      expect(doc.pending.value).toBe(0)
      const bare = (l: LineBody) =>
        l.notes.map(({ id, start, length, string, fret, bend }) => [id, start, length, string, fret, bend ?? 0])
      expect(bare(doc.line.value!), `seed ${seed}`).toEqual(bare(model))
      expect(doc.line.value!.notes.every((n) => n.note === `E${n.fret}`)).toBe(true)
    }
    vi.useRealTimers()
  })
})

describe('what is asked about one change', () => {
  const long = (n: number) =>
    ({
      notes: Array.from({ length: n }, (_, i) => ({ id: n - i, start: i * 240, length: 240, fret: 5, string: 2 })),
    }) as unknown as LineBody

  it('is as much of a long line as of a short one, with the highest number in it', () => {
    for (const n of [300, 4000]) {
      const near = around(long(n), 200 * 240).notes
      expect(near).toHaveLength(105)
      expect(near[0]!.id).toBe(n) // far away, but the highest number
      expect(near[1]!.start).toBe(121 * 240)
      expect(near.at(-1)!.start).toBe(224 * 240)
    }
  })

  it('is the whole of a short line', () => expect(around(long(60), 50 * 240).notes).toEqual(long(60).notes))
})
