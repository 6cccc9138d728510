/* Calls, one at a time: fetched ahead, asked, answered by name, on the neck or by playing, timed. */
import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import { answer, api, type Call, type CallWish } from '../../api/client'
import { ask, end, isAsked, name, play, press, uncover, wanted, type Asked, type By, type Place } from './asked'
import { paced, type Outcome } from './outcomes'

export type { By, Place }

/** Fewer calls than this that wait, and more are fetched. */
const ahead = 3

/** step is how much is asked of what the wish leaves open; it may change while calls wait, which are then of no use. */
export function useCalls(
  wish: Ref<CallWish>,
  by: Ref<By>,
  step: Ref<number>,
  seed = Math.floor(Math.random() * 2 ** 31),
) {
  const queue = shallowRef<Call[]>([])
  const asked = shallowRef<Asked>()
  const trouble = ref('')
  const outcomes = ref<Outcome[]>([])
  /** Bars from call to call while the band plays; the pace follows success. */
  const bars = ref(4)

  async function fetchMore() {
    const [wished, at] = [wish.value, step.value]
    const calls = await answer(api.POST('/api/calls', { body: { ...wished, step: at, seed: seed++ } }))
    if (wished === wish.value && at === step.value) queue.value = [...queue.value, ...calls]
  }
  watch(step, () => {
    queue.value = []
    void fetchMore().catch(() => undefined)
  })
  /** Asks the next call. One that is open was not answered in time, or is skipped. */
  async function next(open: 'passed' | 'skipped' = 'passed') {
    if (asked.value) become(end(asked.value, open, performance.now()))
    trouble.value = ''
    try {
      // What came for a step that was left meanwhile is of no use.
      for (let tries = 0; !queue.value.length && tries < 9; tries++) await fetchMore()
    } catch (e) {
      trouble.value = e instanceof Error ? e.message : String(e)
      asked.value = undefined
      return
    }
    const [first, ...rest] = queue.value
    queue.value = rest
    if (first) asked.value = ask(first, performance.now())
    if (rest.length < ahead) void fetchMore().catch(() => undefined)
  }
  /** What a call has become by an answer; true where that was what was asked. */
  function become(now: Asked) {
    const before = asked.value
    asked.value = now
    if (now.ended && !before?.ended) {
      outcomes.value = [...outcomes.value, { ...now.ended, chord: now.call.chord, says: now.call.says }]
      bars.value = paced(bars.value, outcomes.value)
    }
    return now !== before && (now.done > (before?.done ?? 0) || !!now.ended)
  }
  /** What has no name is pressed where names are chosen. */
  const way = computed<By>(() => (asked.value?.call.sought && by.value === 'name' ? 'neck' : by.value))
  const answered = (how: By, step: (a: Asked, now: number) => Asked) =>
    !!asked.value && (how === 'name' || way.value === how) && become(step(asked.value, performance.now()))

  return {
    call: computed(() => asked.value?.call),
    /** What was answered first instead, and how answers come. */
    first: computed(() => asked.value?.first),
    by: way,
    trouble,
    notes: computed(() => asked.value?.notes ?? []),
    done: computed(() => asked.value?.done ?? 0),
    found: computed(() => asked.value?.found ?? []),
    slip: computed(() => asked.value?.slip),
    covered: computed(() => asked.value?.covered ?? true),
    over: computed(() => !!asked.value?.ended),
    outcomes,
    next,
    /** A degree, or for a bend how many half steps. */
    name: (option: string) => answered('name', (a, now) => name(a, option, now)),
    /** A place of the neck. */
    press: (at: Place) => answered('neck', (a, now) => press(a, at, now)),
    /** A note that was heard, and when. */
    play: (midi: number, ms?: number) => answered('play', (a, now) => play(a, midi, ms ?? now, now)),
    asked: (midi: number) => isAsked(asked.value, midi),
    bars,
    again() {
      if (asked.value) asked.value = ask(asked.value.call, performance.now())
    },
    uncover() {
      if (asked.value) asked.value = uncover(asked.value)
    },
    /** What is wished for has changed: what waits is of no use. */
    anew() {
      queue.value = []
      asked.value = undefined
      void next()
    },
    now: computed(() => wanted(asked.value)),
  }
}
export type Calls = ReturnType<typeof useCalls>
