/* Writing by hand: a cursor on the tablature, moved and filled from the keyboard, the staff or the neck. */
import { quarter } from '../../api/facts'
import { computed, ref, watch, type Ref } from 'vue'
import type { LineNote } from '../../api/client'
import { alter, confirm, insert, move, remove } from '../../document/notes'
import { fits, turned, type Way } from '../../document/ways'
import type { Deeds, Others } from '../../shell/useCommands'
import { settled } from '../../document/guesses'
import type { LineState } from './useLine'

const lengths: [number, string][] = [
  [quarter / 6, 'sextuplet'],
  [quarter / 4, 'sixteenth'],
  [quarter / 3, 'triplet'],
  [quarter / 2, 'eighth'],
  [(2 * quarter) / 3, 'triplet quarter'],
  [(3 * quarter) / 4, 'dotted eighth'],
  [quarter, 'quarter'],
  [1.5 * quarter, 'dotted quarter'],
  [2 * quarter, 'half'],
  [4 * quarter, 'whole'],
]
/** How long what is written can be, in ticks, and what that is called. */
export const steps = lengths.map(([ticks]) => ticks)
export const stepNames = Object.fromEntries(lengths) as Record<number, string>

/** How long a second figure joins the first, in milliseconds. */
const together = 800

export function useEntry(state: LineState, hear: (midi: number) => void, ways: Ref<Way[]>) {
  const tick = ref(0)
  const string = ref(1)
  const step = ref(quarter / 2)
  const score = computed(() => state.study.value?.score)
  const end = computed(() => {
    const last = score.value?.measures.at(-1)
    return last ? last.start + last.beats * quarter : 4 * quarter
  })
  const first = computed(() => Math.min(0, score.value?.measures[0]?.start ?? 0))
  const strings = computed(() => score.value?.strings ?? 6)

  /** The note under the cursor: on its string if there is one, else any that begins there. */
  const note = computed<LineNote | undefined>(() => {
    const here = state.notes.value.filter((n) => n.start === tick.value)
    return here.find((n) => n.string === string.value) ?? here[0]
  })
  /** Goes to a note of what is drawn, in silence. */
  function rest(id?: number) {
    const n = state.known.value.get(id ?? 0)
    if (!n) return
    tick.value = n.start
    string.value = n.string || 1
  }
  function choose(id: number) {
    rest(id)
    const n = state.known.value.get(id)
    if (n) hear(n.midi)
  }
  /* What was just written is heard as soon as the core has said how it sounds. */
  let unheard = 0
  watch(state.study, () => {
    const n = state.known.value.get(unheard)
    if (!n || state.ahead.value.gone.has(unheard)) return
    unheard = 0
    hear(n.midi)
  })
  const within = (t: number) => t >= first.value && t < end.value
  /** To the next note or the next step, whichever comes first. */
  function go(by: number) {
    const starts = state.notes.value.map((n) => n.start)
    const grid = (Math.floor(tick.value / step.value) + (by > 0 ? 1 : 0)) * step.value
    const next =
      by > 0
        ? Math.min(grid, ...starts.filter((s) => s > tick.value))
        : Math.max(grid < tick.value ? grid : grid - step.value, ...starts.filter((s) => s < tick.value))
    if (within(next)) tick.value = next
    const n = state.notes.value.findIndex((x) => x.start === tick.value)
    if (n >= 0) string.value = state.notes.value[n]!.string || string.value
  }

  /** Puts a fret on the string in hand, in place of what stood there. */
  function put(fret: number, onString = string.value, advance = false) {
    string.value = onString
    const t = tick.value
    const own = state.notes.value.find((n) => n.start === t && n.string === onString)
    const length = (own ?? note.value)?.length ?? Math.min(step.value, end.value - t)
    const id = own?.id ?? state.newId()
    state.run(
      insert({ ...(own ? settled(own) : {}), id, start: t, length, string: onString, fret, note: '', finger: 0 }),
    )
    unheard = id
    if (advance && within(t + length)) tick.value = t + length
    return id
  }
  const change = (name: string, to: (n: LineNote) => Partial<LineNote>) =>
    note.value && state.run(alter(note.value.id!, name, to))
  const settle = () => note.value && state.run(confirm(note.value.id))
  const drop = () => note.value && state.run(remove(note.value.id!))
  function longer(by: number) {
    const now = note.value?.length ?? step.value
    const i = steps.findIndex((s) => s >= now)
    const next = steps[Math.max(0, Math.min(steps.length - 1, (i < 0 ? steps.length - 1 : i) + by))]!
    step.value = next
    change('length', () => ({ length: next }))
  }
  /** The same note on the next string; the core finds its fret. */
  function restring(by: number) {
    const to = (note.value?.string ?? 0) + by
    if (!note.value || to < 1 || to > strings.value) return
    string.value = to
    change('string', () => ({ string: to, finger: 0 }))
  }

  /** The same pitch at the same time from the string below, bent up to it by a whole step. */
  function unison() {
    const n = note.value
    const on = n?.string ?? 0
    const under = on + 1
    if (!n || !on || under > strings.value) return
    const open = score.value!.open
    const fret = n.fret + open[on - 1]! - open[under - 1]! - 2
    if (fret < 1 || fret > last()) return
    const id = put(fret, under)
    state.run(alter(id, 'unison bend', () => ({ bend: 4, length: n.length })))
  }

  /** The last fret of the neck that the line is written for, above its capo. */
  const last = () => (state.line.value?.frets ?? 22) - (state.line.value?.capo ?? 0)
  /** The figure just typed: a second one joins it for a moment, on the same note. */
  const typed = ref<{ id: number; text: string }>()
  let closing: ReturnType<typeof setTimeout>
  watch([tick, string], () => (typed.value = undefined), { flush: 'sync' })
  function digit(d: string) {
    const first = typed.value
    const both = first && first.id === note.value?.id ? first.text + d : d
    const text = both.length <= 2 && Number(both) <= last() ? both : d
    typed.value = { id: put(Number(text)), text }
    clearTimeout(closing)
    closing = setTimeout(() => (typed.value = undefined), together)
  }

  /** Plays the note in hand in the next of the ways that a way can be. */
  const play = (way: Way) => (note.value && fits(way, note.value) ? change(way.name, (n) => turned(way, ways.value, n)) : false) // prettier-ignore
  function shift(by: number) {
    const n = note.value
    if (!n) return
    const to = n.start + by * Math.min(step.value, quarter / 2)
    if (!within(to)) return
    state.run(move(n.id!, to))
    tick.value = to
  }
  const deeds: Deeds = {
    earlier: () => go(-1),
    later: () => go(1),
    above: () => (string.value = Math.max(1, string.value - 1)),
    below: () => (string.value = Math.min(strings.value, string.value + 1)),
    moveEarlier: () => shift(-1),
    moveLater: () => shift(1),
    stringAbove: () => restring(-1),
    stringBelow: () => restring(1),
    fret: (e) => digit(e.key),
    unison,
    longer: () => longer(1),
    shorter: () => longer(-1),
    remove: () => drop(),
  }
  const others: Others = (key) => {
    const way = ways.value.find((w) => w.key === key)
    return way && (() => void play(way))
  }

  return {
    tick,
    string,
    step,
    note,
    typed,
    rest,
    choose,
    put,
    drop,
    longer,
    restring,
    go,
    end,
    settle,
    ways,
    play,
    deeds,
    others,
  }
}
export type Entry = ReturnType<typeof useEntry>
