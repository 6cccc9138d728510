import { computed, ref } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { LineBody, LineNote, Study } from '../../api/client'
import type { Command } from '../../document/useDocument'
import type { Way } from '../../document/ways'
import { pressed } from '../../shell/commands'
import { keymap } from '../../shell/useCommands'
import { guessed, settled } from '../../document/guesses'
import { useEntry } from './useEntry'
import type { LineState } from './useLine'
import { verdictsOf } from '../../listen/verdicts'

/* Some of the ways to play a note, as the core lists them. */
const way = (field: string, key: string, values: unknown[] = [true], on?: string): Way => ({
  field,
  key,
  name: String(typeof values[0] === 'string' ? values[0] : field),
  values: values.map((is) => ({ is })),
  on,
})
const ways = [
  way('join', 'h', ['hammer-on']),
  way('join', 'p', ['pull-off']),
  way('scoop', 'g', [1, 2, -1]),
  way('bend', 'b', [1, 2, 4, 6]),
  way('release', 'r', [true], 'bend'),
  way('releaseTo', 'f', [1, 2], 'release'),
  way('vibrato', 'v'),
  way('trill', 't', [1, 2, 3]),
  way('palmMute', 'm'),
  way('accent', 'a'),
  way('dead', 'x'),
  way('stroke', 'd', ['down', 'up']),
]

/* A line that takes every change at once, as the core would: in order, from the lowest string up. */
function table(start: Partial<LineNote>[] = [], neck: Partial<LineBody> = {}) {
  let last = start.length
  const line = ref({
    notes: start.map((n, i): LineNote => ({ id: i + 1, start: 0, length: 480, string: 1, fret: 0, note: '', ...n })),
    ...neck,
  } as LineBody)
  const notes = computed(() => line.value.notes)
  const state = {
    line,
    notes,
    study: computed(() => ({
      line: line.value,
      score: {
        strings: 6,
        open: [64, 59, 55, 50, 45, 40],
        beats: 4,
        measures: [
          { start: 0, beats: 4 },
          { start: 3840, beats: 4 },
        ],
      },
    })),
    known: computed(() => new Map(notes.value.map((n) => [n.id!, { ...n, midi: 40 + n.fret }]))),
    ahead: ref({ fresh: [], gone: new Set<number>() }),
    newId: () => ++last,
    run: (c: Command) => (line.value = c.apply(line.value)),
  }
  const heard: number[] = []
  const entry = useEntry(state as unknown as LineState, (midi) => heard.push(midi), ref(ways))
  const deedOf = keymap(entry.deeds, entry.others)
  /** Presses a key; false tells that it is left to the page. */
  const press = (key: string, held: Partial<KeyboardEvent> = {}) => {
    const e = { key, ...held } as KeyboardEvent
    const deed = deedOf(pressed(e))
    deed?.(e)
    return !!deed
  }
  const places = () => notes.value.map((n) => [n.start, n.string, n.fret, n.length])
  return { entry, notes, press, places, heard }
}

beforeEach(() => vi.useFakeTimers())
afterEach(() => vi.useRealTimers())
const wait = () => vi.advanceTimersByTime(900)

describe('writing by hand', () => {
  it('puts frets on the string in hand, step after step', () => {
    const t = table()
    t.press('ArrowDown')
    t.press('ArrowDown')
    t.press('8')
    t.press('ArrowRight')
    wait()
    t.press('9')
    t.press('ArrowRight')
    t.press('ArrowUp')
    wait()
    t.press('8')
    expect(t.places()).toEqual([
      [0, 3, 8, 480],
      [480, 3, 9, 480],
      [960, 2, 8, 480],
    ])
  })

  it('puts a unison bend under a note, where the string below has the fret for it', () => {
    for (let string = 1; string <= 6; string++)
      for (let fret = 0; fret <= 22; fret++) {
        const t = table([{ string, fret }], { frets: 22 })
        t.entry.string.value = string
        t.press('n')
        const apart = string === 2 ? 4 : 5
        const under = fret + apart - 2
        const fits = string < 6 && under <= 22
        expect(t.notes.value.length, `${string}:${fret}`).toBe(fits ? 2 : 1)
        if (fits) expect(t.notes.value.find((n) => n.string === string + 1)).toMatchObject({ fret: under, bend: 4, start: 0, length: 480 }) // prettier-ignore
      }
  })

  it('reads two figures in quick succession as one fret, up to the last of the neck', () => {
    for (let frets = 12; frets <= 27; frets++)
      for (let capo = 0; capo <= 5; capo += 5)
        for (let fret = 10; fret <= 30; fret++) {
          const t = table([], { frets, capo })
          for (const figure of String(fret)) t.press(figure)
          expect(t.places()).toEqual([[0, 1, fret <= frets - capo ? fret : fret % 10, 480]])
        }
  })

  it('joins two figures on one note only: typed for two notes they are two frets', () => {
    const t = table()
    t.press('1')
    expect(t.entry.typed.value).toBeTruthy()
    t.press('ArrowRight')
    expect(t.entry.typed.value).toBeUndefined()
    t.press('2')
    t.press('ArrowDown')
    t.press('3')
    expect(t.places()).toEqual([
      [0, 1, 1, 480],
      [480, 2, 3, 480],
      [480, 1, 2, 480],
    ])
    t.press('4')
    expect(t.places()[1]).toEqual([480, 2, 4, 480])
    wait()
    expect(t.entry.typed.value).toBeUndefined()
  })

  it('cuts what still sounds where a new note begins', () => {
    const t = table([{ length: 1920, string: 3, fret: 5 }])
    t.entry.tick.value = 960
    t.press('4')
    expect(t.places()).toEqual([
      [0, 3, 5, 960],
      [960, 1, 4, 480],
    ])
  })

  it('stays within the bars', () => {
    const t = table()
    t.press('ArrowLeft')
    expect(t.entry.tick.value).toBe(0)
    for (let i = 0; i < 40; i++) t.press('ArrowRight')
    expect(t.entry.tick.value).toBe(7680 - 480)
    t.press('ArrowUp')
    expect(t.entry.string.value).toBe(1)
    for (let i = 0; i < 9; i++) t.press('ArrowDown')
    expect(t.entry.string.value).toBe(6)
  })

  it('stops at every note on the way, on its string', () => {
    const t = table([{ start: 320, string: 4, fret: 7 }])
    t.press('ArrowRight')
    expect([t.entry.tick.value, t.entry.string.value]).toEqual([320, 4])
    t.press('ArrowRight')
    expect(t.entry.tick.value).toBe(480)
    t.press('ArrowLeft')
    t.press('ArrowLeft')
    expect(t.entry.tick.value).toBe(0)
  })

  it('lengthens and shortens by values that can be written', () => {
    const t = table([{ length: 480 }])
    const lengths = ['+', '+', '+', '-', '-', '-', '-'].map((k) => {
      t.press(k)
      return t.notes.value[0]!.length
    })
    expect(lengths).toEqual([640, 720, 960, 720, 640, 480, 320])
  })

  it('moves a note in time, and takes it to the next string for the core to find its fret', () => {
    const t = table([{ start: 960, string: 2, fret: 5, finger: 1 }])
    t.entry.rest(1)
    t.press('ArrowRight', { shiftKey: true })
    expect(t.places()).toEqual([[1440, 2, 5, 480]])
    t.press('ArrowDown', { shiftKey: true })
    expect(t.notes.value[0]).toMatchObject({ string: 3, fret: 5, finger: 0 })
    t.press('ArrowUp', { shiftKey: true })
    t.press('ArrowUp', { shiftKey: true })
    t.press('ArrowUp', { shiftKey: true })
    expect(t.notes.value[0]!.string).toBe(1)
  })

  it('writes how a note is played, and takes it back', () => {
    const t = table([{ fret: 5 }])
    const after = (key: string) => {
      t.press(key)
      return t.notes.value[0]!
    }
    expect(after('h').join).toBe('hammer-on')
    expect(after('p').join).toBe('pull-off')
    expect(after('p').join).toBeUndefined()
    expect(after('r').release).toBeUndefined() // nothing to let down
    expect(['b', 'b', 'b'].map((k) => after(k).bend)).toEqual([1, 2, 4])
    expect(after('r').release).toBe(true)
    expect(after('f').releaseTo).toBe(1)
    expect(after('b')).toMatchObject({ bend: 6, release: true, releaseTo: 1 })
    expect(after('b')).toMatchObject({ bend: undefined, release: undefined, releaseTo: undefined })
    expect(['v', 'a', 'x', 'm'].map(after).at(-1)).toMatchObject({
      vibrato: true,
      accent: true,
      dead: true,
      palmMute: true,
    })
    expect(['g', 'g', 'g', 'g'].map((k) => after(k).scoop)).toEqual([1, 2, -1, undefined])
    expect(['t', 't', 't', 't'].map((k) => after(k).trill)).toEqual([1, 2, 3, undefined])
    expect(['d', 'd', 'd'].map((k) => after(k).stroke)).toEqual(['down', 'up', undefined])
  })

  it('deletes the note in hand, and leaves an empty place alone', () => {
    const t = table([{ string: 2 }, { string: 3 }, { start: 480, string: 3 }])
    t.entry.string.value = 3
    t.press('Delete')
    expect(t.places().map(([start, string]) => [start, string])).toEqual([
      [0, 2],
      [480, 3],
    ])
    t.entry.tick.value = 960
    t.press('Backspace')
    expect(t.notes.value).toHaveLength(2)
  })

  it('takes its own keys and leaves the rest to the page', () => {
    const t = table()
    expect(t.press('5')).toBe(true)
    expect(t.press('q')).toBe(false)
    expect(t.press('5', { altKey: true })).toBe(false)
    expect(t.press('z', { ctrlKey: true })).toBe(false)
  })
})

describe('what was guessed', () => {
  const found = { placeGuessed: true, rhythmGuessed: true, bendGuessed: true }

  it('is told in words', () => {
    const note: LineNote = { start: 0, length: 1, note: '', fret: 0 }
    expect(guessed(note)).toBe('')
    expect(guessed({ ...note, bendGuessed: true })).toBe('bend')
    expect(guessed({ ...note, joinGuessed: true })).toBe('way it is reached')
    expect(guessed({ ...note, placeGuessed: true, bendGuessed: true })).toBe('place and bend')
    expect(guessed({ ...note, ...found })).toBe('place, onset and bend')
    expect(guessed(settled({ ...note, ...found }))).toBe('')
  })

  it('is settled by what the player changes, and by nothing else', () => {
    for (const [key, held, left] of [
      ['v', {}, 'place, onset and bend'],
      ['b', {}, 'place and onset'],
      ['+', {}, 'place and bend'],
      ['ArrowRight', { shiftKey: true }, 'place and bend'],
      ['ArrowDown', { shiftKey: true }, 'onset and bend'],
    ] as const) {
      const t = table([{ ...found, bend: 2 }])
      t.press(key, held)
      expect(guessed(t.notes.value[0]!), key).toBe(left)
    }
    const t = table([found, { ...found, start: 480 }])
    t.entry.settle()
    expect(t.notes.value.map(guessed)).toEqual(['', 'place, onset and bend'])
  })
})

describe('verdicts under the notes', () => {
  it('tell how each change is met, and where a note rests that should not', () => {
    const landing = (note: number | undefined, when: string) => ({
      note,
      when,
      landed: when === 'on time',
      says: `says ${when}`,
    })
    const note = (id: number, says?: string) => ({ id, does: { fault: !!says, says } })
    const study = {
      score: { notes: [note(1), note(2, 'rubs'), note(3), note(4, 'rubs too')] },
      report: {
        landings: [landing(1, 'on time'), landing(3, 'late'), landing(4, 'wrong note'), landing(undefined, 'silent')],
      },
    } as unknown as Study
    expect(Object.fromEntries(verdictsOf(study))).toEqual({
      1: { kind: 'landed', says: 'says on time' },
      2: { kind: 'rub', says: 'rubs' },
      3: { kind: 'late', says: 'says late' },
      4: { kind: 'missed', says: 'says wrong note' },
    })
    expect(verdictsOf(undefined).size).toBe(0)
  })
})
