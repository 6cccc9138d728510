import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { Refused, type LineBody, type Study } from '../../api/client'

/* The core answers when it is told to, in any order. */
const asked: { body: LineBody; answer: (study: Study) => void; refuse: (e: Error) => void }[] = []
vi.mock('../../api/kept', () => ({
  lineBody: (line: LineBody) => line,
  askLine: {
    study: (body: LineBody) =>
      new Promise<Study>((answer, refuse) => {
        asked.push({ body, answer, refuse })
      }),
  },
}))
const { useLine } = await import('./useLine')

const body = (title: string) => ({ title, notes: [], text: '| C7 |' }) as unknown as LineBody
const study = (line: LineBody) => ({ line, score: { notes: [] }, said: [] }) as unknown as Study
async function answerLast() {
  const last = asked.at(-1)!
  last.answer(study(last.body))
  await vi.advanceTimersByTimeAsync(0)
}

beforeEach(() => {
  asked.length = 0
  vi.useFakeTimers()
})
afterEach(() => vi.useRealTimers())

type Save = (line: LineBody) => Promise<{ kept: LineBody; how: 'sent' | 'joined' | 'theirs' }>
const kept: Save = (line) => Promise.resolve({ kept: line, how: 'sent' })
const saveLast = vi.fn<(line: LineBody) => void>()
const hold = vi.fn<(line: LineBody) => Promise<boolean>>(() => Promise.resolve(true))
const rewind = vi.fn()

async function opened(save = vi.fn(kept)) {
  const state = useLine(() => ({ save, saveLast, hold, rewind }))
  void state.open(body('one'))
  await answerLast()
  return { state, save }
}
async function retitle(state: ReturnType<typeof useLine>, title: string) {
  void state.change({ title })
  await answerLast()
}

describe('a line in the hand', () => {
  it('is opened without being saved, and saved half a second after a change', async () => {
    const { state, save } = await opened()
    await vi.advanceTimersByTimeAsync(2000)
    expect(save).not.toHaveBeenCalled()
    await retitle(state, 'two')
    await retitle(state, 'three')
    expect(state.state.value).toBe('saving')
    await vi.advanceTimersByTimeAsync(600)
    expect(save.mock.calls.map(([l]) => l.title)).toEqual(['three'])
    expect(state.state.value).toBe('saved')
  })

  it('goes back and forth through its changes, and forgets the way forth after a new one', async () => {
    const { state } = await opened()
    for (const title of ['two', 'three']) {
      await vi.advanceTimersByTimeAsync(1500) // what is typed quickly is one step
      await retitle(state, title)
    }
    const seen = []
    for (const step of [state.undo, state.undo, state.redo]) {
      step()
      await answerLast()
      seen.push(state.line.value!.title)
    }
    expect(seen).toEqual(['two', 'one', 'two'])
    expect([state.canUndo.value, state.canRedo.value]).toEqual([true, true])
    await retitle(state, 'four')
    expect(state.canRedo.value).toBe(false)
    state.undo()
    await answerLast()
    expect(state.line.value!.title).toBe('two')
  })

  it('says what the core refuses, keeps what else was done, and stops saying it', async () => {
    const { state, save } = await opened()
    void state.change({ title: '' })
    asked.at(-1)!.refuse(new Refused('a line needs a title', {}, 422))
    await vi.advanceTimersByTimeAsync(0)
    expect([state.trouble.value, state.line.value!.title, state.canUndo.value]).toEqual([
      'Title: a line needs a title',
      'one',
      false,
    ])
    await vi.advanceTimersByTimeAsync(13_000)
    expect(state.trouble.value).toBe('')
    expect(save.mock.calls.every(([l]) => l.title === 'one')).toBe(true)
  })

  it('says that it is not saved when it is not, and saves what is left when the place is left', async () => {
    const save = vi.fn<Save>(() => Promise.reject(new Error('the program is gone')))
    const { state } = await opened(save)
    await retitle(state, 'two')
    await vi.advanceTimersByTimeAsync(600)
    expect([state.state.value, state.trouble.value]).toEqual(['unsaved', 'the program is gone'])
    state.flush()
    expect(saveLast.mock.calls.at(-1)![0].title).toBe('two')
  })

  it('tries again by itself while the program does not answer', async () => {
    const save = vi.fn<Save>(() => Promise.reject(new Refused('Undaris does not answer.', {}, 0)))
    const { state } = await opened(save)
    await retitle(state, 'two')
    await vi.advanceTimersByTimeAsync(600)
    expect(state.state.value).toBe('unsaved')
    save.mockImplementation(kept)
    await vi.advanceTimersByTimeAsync(2100)
    expect(state.state.value).toBe('saved')
  })

  it('joins what was changed elsewhere with what was done while it was being saved', async () => {
    let done!: (o: { kept: LineBody; how: 'sent' | 'joined' | 'theirs' }) => void
    const save = vi.fn<Save>(() => new Promise((r) => (done = r)))
    const { state } = await opened(save)
    await retitle(state, 'mine')
    await vi.advanceTimersByTimeAsync(600)
    void state.change({ palette: 'dorian' })
    done({ kept: { ...body('mine'), key: 'F' }, how: 'joined' })
    save.mockImplementation(kept)
    await vi.advanceTimersByTimeAsync(0)
    expect(state.line.value).toMatchObject({ title: 'mine', palette: 'dorian', key: 'F' })
    void state.change({ title: 'again' })
    expect(rewind).not.toHaveBeenCalled()
  })

  it('asks once more where both touch the same', async () => {
    let done!: (o: { kept: LineBody; how: 'sent' | 'joined' | 'theirs' }) => void
    const save = vi.fn<Save>(() => new Promise((r) => (done = r)))
    const { state } = await opened(save)
    await retitle(state, 'mine')
    await vi.advanceTimersByTimeAsync(600)
    void state.change({ key: 'G' })
    done({ kept: { ...body('mine'), key: 'F' }, how: 'joined' })
    await vi.advanceTimersByTimeAsync(0)
    expect([state.line.value!.key, rewind.mock.calls.length]).toEqual(['G', 1])
  })

  it('shows what was changed elsewhere when the player takes that, with a way back to mine', async () => {
    const save = vi.fn<Save>(() => Promise.resolve({ kept: body('theirs'), how: 'theirs' }))
    const { state } = await opened(save)
    await retitle(state, 'mine')
    await vi.advanceTimersByTimeAsync(600)
    save.mockImplementation(kept)
    await answerLast()
    await vi.advanceTimersByTimeAsync(600)
    expect([state.line.value!.title, state.state.value]).toEqual(['theirs', 'saved'])
    state.undo()
    await answerLast()
    expect(state.line.value!.title).toBe('mine')
  })
})
