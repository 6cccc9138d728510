/* Calls, one at a time: asked, answered by name, on the neck or by playing, timed. Nothing is judged here but whether an answer is the
   one that the core gave with the call. */
import { computed, ref, shallowRef, type Ref } from 'vue'
import { answer, api, type Call, type CallWish } from '../../api/client'
import { paced, type Outcome } from './outcomes'

export interface Place {
  string: number
  fret: number
}
/** How tones are answered. */
export type By = 'name' | 'neck' | 'play'

/** Half steps that a tone may be off when it is played. */
const inTune = 0.4

/** Whether tones were played as far apart as was asked for; what is not played has no time. */
export const inTime = (played: number[], call?: Pick<Call, 'gap' | 'give'>) =>
  !call?.gap || played.slice(1).every((ms, i) => Math.abs(ms - played[i]! - call.gap!) <= (call.give ?? 0))

export function useCalls(wish: Ref<CallWish>, by: Ref<By>, seed = Math.floor(Math.random() * 2 ** 31)) {
  const queue = shallowRef<Call[]>([])
  const call = shallowRef<Call>()
  const trouble = ref('')
  /** How many of the call's tones are answered. */
  const done = ref(0)
  const found = ref<Place[]>([])
  /** The last answer that was not it. */
  const slip = ref<Place | string>()
  const covered = ref(true)
  const over = ref(false)
  const outcomes = ref<Outcome[]>([])
  /** Bars from call to call while the band plays; the pace follows success. */
  const bars = ref(4)
  let began = 0
  let slipped = false
  /** When each tone was played. */
  let played: number[] = []

  async function fetchMore() {
    const asked = wish.value
    const calls = await answer(api.POST('/api/calls', { body: { ...asked, seed: seed++ } }))
    if (asked === wish.value) queue.value = [...queue.value, ...calls]
  }
  /** Asks the next call. One that is open was not answered in time, or is skipped. */
  async function next(open: 'passed' | 'skipped' = 'passed') {
    if (call.value && !over.value) finish(open)
    trouble.value = ''
    try {
      if (!queue.value.length) await fetchMore()
    } catch (e) {
      trouble.value = e instanceof Error ? e.message : String(e)
      call.value = undefined
      return
    }
    const [first, ...rest] = queue.value
    queue.value = rest
    if (first) ask(first)
    if (rest.length < 3) void fetchMore().catch(() => undefined)
  }
  function ask(c: Call) {
    call.value = c
    done.value = 0
    found.value = []
    slip.value = undefined
    slipped = false
    played = []
    covered.value = c.notes.length > 0
    over.value = false
    began = performance.now()
  }
  function finish(how: Outcome['how']) {
    over.value = true
    covered.value = false
    const c = call.value!
    const took = how === 'passed' || how === 'skipped' ? undefined : performance.now() - began
    outcomes.value = [...outcomes.value, { how, took, chord: c.chord, says: c.says }]
    bars.value = paced(bars.value, outcomes.value)
  }
  const complete = () =>
    finish(
      !covered.value && call.value?.notes.length
        ? 'shown'
        : slipped
          ? 'late'
          : inTime(played, call.value)
            ? 'right'
            : 'uneven',
    )
  function wrong(what: Place | string) {
    slip.value = what
    slipped = true
    return false
  }

  /** A degree, or for a bend how many half steps. true where it is what was asked. */
  function name(option: string) {
    const c = call.value
    if (!c || over.value) return false
    slip.value = undefined
    if (!c.notes.length) {
      if (option !== c.answer) return wrong(option)
      complete()
      return true
    }
    if (c.notes[done.value]?.degree !== option) return wrong(option)
    found.value = [...found.value, c.notes[done.value]!.places[0]!]
    if (++done.value === c.notes.length) complete()
    return true
  }
  /** Whether a note that is heard is the tone asked for, wherever it is played. */
  const asked = (midi: number) => Math.abs(midi - (call.value?.notes[done.value]?.midi ?? NaN)) <= inTune
  /** A note that was heard, and when. */
  function play(midi: number, ms = performance.now()) {
    const c = call.value
    const wanted = c?.notes[done.value]
    if (!c || !wanted || over.value || by.value !== 'play') return false
    slip.value = undefined
    if (!asked(midi)) {
      slipped = true
      return false
    }
    found.value = [...found.value, wanted.places[0]!]
    played.push(ms)
    if (++done.value === c.notes.length) complete()
    return true
  }
  /** A place of the neck. */
  function press(at: Place) {
    const c = call.value
    if (!c || over.value || !c.notes.length || by.value !== 'neck') return false
    slip.value = undefined
    if (!c.notes[done.value]?.places.some((p) => p.string === at.string && p.fret === at.fret)) return wrong(at)
    found.value = [...found.value, at]
    if (++done.value === c.notes.length) complete()
    return true
  }

  return {
    call,
    trouble,
    done,
    found,
    slip,
    covered,
    over,
    outcomes,
    next,
    name,
    press,
    play,
    asked,
    bars,
    again: () => call.value && ask(call.value),
    uncover: () => (covered.value = false),
    /** What is wished for has changed: what waits is of no use. */
    anew() {
      queue.value = []
      call.value = undefined
      void next()
    },
    now: computed(() => call.value?.notes[done.value]),
  }
}
export type Calls = ReturnType<typeof useCalls>
