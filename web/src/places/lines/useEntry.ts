/* Writing by hand: a cursor on the tablature, moved and filled from the keyboard, the staff or the neck. */
import { computed, ref } from 'vue'
import type { LineNote } from '../../api/client'
import { settled, stillGuessed } from './guesses'
import type { LineState } from './useLine'

export const steps = [160, 240, 320, 480, 640, 720, 960, 1440, 1920, 3840]
export const stepNames: Record<number, string> = {
  160: 'sextuplet',
  240: 'sixteenth',
  320: 'triplet',
  480: 'eighth',
  640: 'triplet quarter',
  720: 'dotted eighth',
  960: 'quarter',
  1440: 'dotted quarter',
  1920: 'half',
  3840: 'whole',
}

const changed = (n: LineNote, change: Partial<LineNote>): LineNote => ({
  ...settled(n),
  ...stillGuessed(n, change),
  ...change,
})

export function useEntry(state: LineState, hear: (midi: number) => void) {
  const tick = ref(0)
  const string = ref(1)
  const step = ref(480)
  const score = computed(() => state.study.value?.score)
  const end = computed(() => (score.value ? score.value.measures.at(-1)!.start + score.value.beats * 960 : 3840))
  const first = computed(() => Math.min(0, score.value?.measures[0]?.start ?? 0))
  const strings = computed(() => score.value?.strings ?? 6)

  /** The note under the cursor: on its string if there is one, else any that begins there. */
  const at = computed(() => {
    const all = state.notes.value
    const own = all.findIndex((n) => n.start === tick.value && n.string === string.value)
    return own >= 0 ? own : all.findIndex((n) => n.start === tick.value)
  })
  const note = computed<LineNote | undefined>(() => state.notes.value[at.value])

  /** Goes to a note in silence. */
  function rest(index: number) {
    const n = state.notes.value[index]
    if (!n) return
    tick.value = n.start
    string.value = n.string || 1
  }
  function choose(index: number) {
    rest(index)
    hearNote(index)
  }
  const hearNote = (index: number) => {
    const w = score.value?.notes[index]
    if (w) hear(w.midi)
  }
  const clamp = (t: number) => Math.max(first.value, Math.min(end.value - 60, t))
  /** To the next note or the next step, whichever comes first. */
  function go(by: number) {
    const starts = state.notes.value.map((n) => n.start)
    const grid = (Math.floor(tick.value / step.value) + (by > 0 ? 1 : 0)) * step.value
    const next =
      by > 0
        ? Math.min(grid, ...starts.filter((s) => s > tick.value))
        : Math.max(grid < tick.value ? grid : grid - step.value, ...starts.filter((s) => s < tick.value))
    tick.value = clamp(next)
    const n = state.notes.value.findIndex((x) => x.start === tick.value)
    if (n >= 0) string.value = state.notes.value[n]!.string || string.value
  }

  /** Puts a fret on the string in hand, in place of what stood there. */
  function put(fret: number, onString = string.value, advance = false) {
    string.value = onString
    const t = tick.value
    const old = state.notes.value[at.value]
    const length = old && old.start === t ? old.length : Math.min(step.value, end.value - t)
    void state
      .edit((notes) => [
        ...notes
          .filter((n) => !(n.start === t && n.string === onString))
          .map((n) => (n.start < t && n.start + n.length > t ? { ...n, length: t - n.start } : n)),
        {
          ...(old?.string === onString ? settled(old) : {}),
          start: t,
          length,
          string: onString,
          fret,
          note: '',
          finger: 0,
        },
      ])
      ?.then(() => {
        hearNote(state.notes.value.findIndex((n) => n.start === t && n.string === onString))
        if (advance) tick.value = clamp(t + length)
      })
  }
  const alter = (change: (n: LineNote) => Partial<LineNote>) => {
    const i = at.value
    if (i < 0) return
    void state.edit((notes) => notes.map((n, k) => (k === i ? changed(n, change(n)) : n)))
  }
  const settle = () => void state.edit((notes) => notes.map((n, k) => (k === at.value ? settled(n) : n)))
  const drop = () => {
    const i = at.value
    if (i >= 0) void state.edit((notes) => notes.filter((_, k) => k !== i))
  }
  function longer(by: number) {
    const now = note.value?.length ?? step.value
    const i = steps.findIndex((s) => s >= now)
    const next = steps[Math.max(0, Math.min(steps.length - 1, (i < 0 ? steps.length - 1 : i) + by))]!
    step.value = next
    if (note.value) alter(() => ({ length: next }))
  }
  /** The same note on the next string; the core finds its fret. */
  function restring(by: number) {
    const to = (note.value?.string ?? 0) + by
    if (!note.value || to < 1 || to > strings.value) return
    string.value = to
    alter(() => ({ string: to, fret: 99, finger: 0 }))
  }

  let typed = ''
  let typedAt = 0
  function digit(d: string) {
    const now = performance.now()
    const both = now - typedAt < 800 ? typed + d : d
    typed = Number(both) <= 24 ? both : d
    typedAt = now
    put(Number(typed))
  }

  const cycle = (values: number[], now: number) => values[(values.indexOf(now) + 1) % values.length]!
  const joins = { h: 'hammer-on', p: 'pull-off', s: 'slide' } as const
  const keys: Record<string, (e: KeyboardEvent) => void> = {
    ArrowLeft: (e) => (e.shiftKey ? shift(-1) : go(-1)),
    ArrowRight: (e) => (e.shiftKey ? shift(1) : go(1)),
    ArrowUp: (e) => (e.shiftKey ? restring(-1) : (string.value = Math.max(1, string.value - 1))),
    ArrowDown: (e) => (e.shiftKey ? restring(1) : (string.value = Math.min(strings.value, string.value + 1))),
    '+': () => longer(1),
    '=': () => longer(1),
    '-': () => longer(-1),
    Delete: drop,
    Backspace: drop,
    b: () => alter((n) => ({ bend: cycle([0, 1, 2, 4, 6], n.bend ?? 0), release: false })),
    r: () => alter((n) => ({ release: !!n.bend && !n.release })),
    v: () => alter((n) => ({ vibrato: !n.vibrato })),
    t: () => alter((n) => ({ trill: cycle([0, 1, 2, 3], n.trill ?? 0) })),
    x: () => alter((n) => ({ dead: !n.dead })),
    a: () => alter((n) => ({ accent: !n.accent })),
    g: () => alter((n) => ({ scoop: cycle([0, 1, 2, -1], n.scoop ?? 0) })),
  }
  function shift(by: number) {
    const n = note.value
    if (!n) return
    const to = clamp(n.start + by * Math.min(step.value, 480))
    tick.value = to
    void state.edit((notes) =>
      notes.map((m) => (m.start === n.start && m.string === n.string ? changed(m, { start: to }) : m)),
    )
  }
  function key(e: KeyboardEvent) {
    if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'z') {
      if (e.shiftKey) state.redo()
      else state.undo()
    } else if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'y') state.redo()
    else if (e.ctrlKey || e.metaKey || e.altKey) return
    else if (/^\d$/.test(e.key)) digit(e.key)
    else if (e.key in joins) {
      const join = joins[e.key as keyof typeof joins]
      alter((n) => ({ join: n.join === join ? undefined : join }))
    } else if (e.key in keys) keys[e.key]!(e)
    else return
    e.preventDefault()
    e.stopPropagation()
  }

  return { tick, string, step, at, note, rest, choose, put, alter, drop, longer, restring, go, key, end, settle }
}
export type Entry = ReturnType<typeof useEntry>
