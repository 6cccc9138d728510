import { beforeEach, describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import type { Call, CallWish } from '../../api/client'
import { Answers, doubt } from './answers'
import { paced, stepped, summed, type Outcome } from './outcomes'

let served: Call[] = []
const posted = vi.fn<(q: { body: CallWish }) => void>()
vi.mock('../../api/client', () => ({
  api: {
    POST: (_: string, q: { body: CallWish }) => {
      posted(q)
      return served
    },
  },
  answer: (x: unknown) => Promise.resolve(x),
}))
const { useCalls } = await import('./useCalls')
const { inTime } = await import('./asked')

const place = (string: number, fret: number) => ({ string, fret })
const tones = (chord = 'G7'): Call => ({
  key: 'C',
  degree: 'R',
  down: false,
  kind: 'tones',
  chord,
  numeral: 'V7',
  says: 'its tones upward, from the 5',
  sounds: [],
  spoken: '',
  window: { low: 7, high: 11 },
  strings: [5, 4, 3, 2],
  answers: [],
  options: ['R', '3', '5', 'b7'],
  notes: [
    { degree: '5', note: 'D', midi: 50, places: [place(4, 12), place(5, 17)] },
    { degree: 'b7', note: 'F', midi: 53, places: [place(4, 15)] },
  ],
})
const which = (): Call => ({ ...tones(), kind: 'place', notes: [], given: place(2, 8), options: ['R', 'b9', '9', '#9', '3', '11', '#11', '5', 'b13', '13', 'b7', '7'], answer: 'R' }) // prettier-ignore
const turn = () => new Promise((r) => setTimeout(r, 0))

beforeEach(() => {
  served = [tones(), which(), tones('C7'), tones('F7'), tones('C7')]
  posted.mockClear()
})
async function asked(by: 'name' | 'neck' = 'name') {
  const calls = useCalls(ref<CallWish>({ chart: 6 }), ref(by), ref(3))
  await calls.next()
  return calls
}

describe('a call', () => {
  it('is answered by name, tone by tone, and timed', async () => {
    const calls = await asked()
    expect(calls.covered.value).toBe(true)
    expect(calls.name('5')).toBe(true)
    expect([calls.done.value, calls.over.value]).toEqual([1, false])
    expect(calls.name('b7')).toBe(true)
    expect([calls.over.value, calls.covered.value]).toEqual([true, false])
    expect(calls.outcomes.value[0]).toMatchObject({ how: 'right', chord: 'G7' })
    expect(calls.outcomes.value[0]!.took).toBeGreaterThanOrEqual(0)
    expect(calls.name('5')).toBe(false) // it is over
  })

  it('takes any place of a tone on the neck, and no place when it is answered by name', async () => {
    const calls = await asked('neck')
    expect(calls.press(place(3, 3))).toBe(false)
    expect(calls.slip.value).toEqual(place(3, 3))
    expect(calls.press(place(5, 17))).toBe(true)
    expect(calls.slip.value).toBeUndefined()
    calls.press(place(4, 15))
    expect(calls.outcomes.value[0]!.how).toBe('late')
    expect(calls.found.value).toEqual([place(5, 17), place(4, 15)])
    const named = await asked('name')
    expect(named.press(place(4, 12))).toBe(false)
    expect(named.slip.value).toBeUndefined()
  })

  it('notes that it was uncovered, and what was let go; asking again begins anew', async () => {
    const calls = await asked()
    calls.uncover()
    calls.name('5')
    calls.name('b7')
    expect(calls.outcomes.value[0]!.how).toBe('shown')
    await calls.next()
    expect(calls.name('3')).toBe(false)
    expect(calls.slip.value).toBe('3')
    await calls.next()
    expect(calls.outcomes.value[1]).toMatchObject({ how: 'passed', took: undefined })
    calls.name('5')
    calls.again()
    expect([calls.done.value, calls.covered.value, calls.found.value.length]).toEqual([0, true, 0])
  })

  it('of every place is pressed where names are chosen, and never named', async () => {
    served = [{ ...tones(), kind: 'every', free: true, sought: true }]
    const calls = await asked('name')
    expect(calls.by.value).toBe('neck')
    expect(calls.name('5')).toBe(false)
    expect(calls.slip.value).toBeUndefined()
    expect(calls.press(place(4, 15))).toBe(true)
    expect(calls.notes.value.map((n) => n.degree)).toEqual(['b7', '5'])
    expect(calls.press(place(4, 12))).toBe(true)
    expect(calls.outcomes.value[0]!.how).toBe('right')
  })

  it('that waits is of no use when more or less is asked', async () => {
    const step = ref(3)
    const calls = useCalls(ref<CallWish>({ chart: 6 }), ref('name'), step)
    await calls.next()
    const open = calls.call.value
    const before = posted.mock.calls.length
    served = [tones('A7')]
    step.value = 4
    await turn()
    expect(calls.call.value).toBe(open)
    expect(posted.mock.calls.slice(before).map(([q]) => q.body.step)).toEqual([4])
    await calls.next()
    expect(calls.call.value!.chord).toBe('A7')
  })

  it('is followed by others before they run out', async () => {
    const calls = await asked()
    for (let i = 0; i < 12; i++) {
      await calls.next()
      await turn()
      expect(calls.call.value).toBeDefined()
    }
    const seeds = posted.mock.calls.map(([q]) => q.body.seed)
    expect(seeds.length).toBeGreaterThan(1)
    expect(new Set(seeds).size).toBe(seeds.length)
  })
})

describe('a sitting', () => {
  const o = (how: Outcome['how'], took = 1000, chord = 'C7'): Outcome => ({ how, took, chord, says: '' })

  it('is summed with what was good first, and one thing to look at', () => {
    expect(summed([])).toEqual({ asked: 0, right: 0, skipped: 0, usual: undefined, weak: undefined })
    const list = [o('right', 900), o('right', 3000), o('right', 1200), o('late', 1, 'F7'), o('shown', 1, 'F7')]
    expect(summed(list)).toEqual({ asked: 5, right: 3, skipped: 0, usual: 1200, weak: 'F7' })
    expect(summed([o('passed', 1, 'G7')]).weak).toBeUndefined() // once is chance
    // A skip tells nothing of how well it is known: it is counted, and that is all.
    expect(summed([...list, o('skipped', 0, 'G7'), o('skipped', 0, 'G7')])).toEqual({ ...summed(list), skipped: 2 })
  })

  it('asks more after five right ones in a row, less after two slips of three', () => {
    const [r, late, uneven, skip] = [o('right'), o('late'), o('uneven'), o('skipped')]
    expect(stepped([])).toBe(0)
    expect(stepped([r, r, r, r])).toBe(0)
    expect(stepped([r, r, r, r, r])).toBe(1)
    expect(stepped([r, r, skip, r, r, r])).toBe(1)
    expect(stepped([late, r, r, r, r])).toBe(0)
    expect(stepped([late, r, r, r, r, r])).toBe(1)
    expect(stepped([r, r, r, r, uneven])).toBe(0) // not in time is no slip, nor good enough
    expect(stepped([uneven, uneven, uneven])).toBe(0)
    expect(stepped([late])).toBe(0)
    expect(stepped([late, late])).toBe(-1)
    expect(stepped([late, r, late])).toBe(-1)
    expect(stepped([late, skip, r, late])).toBe(-1)
    expect(stepped([late, r, r, late])).toBe(0)
    expect(stepped([o('shown'), o('passed')])).toBe(-1)
  })

  it('goes quicker after three right ones in a row, slower after two that were not', () => {
    const r = o('right')
    const x = o('passed')
    expect(paced(4, [x, r, r])).toBe(4)
    expect(paced(4, [r, r, r])).toBe(2)
    expect(paced(1, [r, r, r])).toBe(1)
    expect(paced(4, [r, x, x])).toBe(8)
    expect(paced(8, [x, x])).toBe(8)
    expect([paced(4, [x, o('skipped')]), paced(4, [r, r, o('skipped')]), paced(4, [x, o('skipped'), x])]).toEqual([
      4, 4, 8,
    ])
  })
})

describe('a note that is heard as an answer', () => {
  it('counts once: at once where it is asked for, else when its pitch is sure', () => {
    vi.useFakeTimers()
    const told: number[] = []
    let wanted = 60
    const answers = new Answers(
      (m) => Math.abs(m - wanted) < 0.4,
      (m) => told.push(m),
    )
    answers.hear([{ at: 0, pitch: 60.1 }])
    answers.hear([{ at: 0, pitch: 60.1 }])
    expect(told).toEqual([60.1])
    wanted = 64
    answers.hear([{ at: 0, pitch: 60.1 }, { at: 9, pitch: 52 }]) // prettier-ignore
    expect(told).toHaveLength(1) // an octave too low is but the first guess
    vi.advanceTimersByTime(doubt / 2)
    answers.hear([{ at: 0, pitch: 60.1 }, { at: 9, pitch: 64 }]) // prettier-ignore
    vi.advanceTimersByTime(doubt)
    expect(told).toEqual([60.1, 64])
    answers.hear([{ at: 20, pitch: 61 }])
    vi.advanceTimersByTime(doubt + 1)
    expect(told).toEqual([60.1, 64, 61]) // what stays another note is told as it is
    answers.hear([{ at: 30, pitch: 70 }])
    answers.stop()
    vi.advanceTimersByTime(doubt + 1)
    expect(told).toHaveLength(3)
    vi.useRealTimers()
  })
})

describe('a rhythm that was asked for', () => {
  it('is kept within what the core allows, and asked only of what is played', () => {
    const call = { gap: 300, give: 90 }
    expect(inTime([0, 320, 600, 890], call)).toBe(true)
    expect(inTime([0, 320, 800], call)).toBe(false)
    expect(inTime([], call)).toBe(true)
    expect(inTime([0, 900], { gap: 0, give: 0 })).toBe(true)
  })
})
