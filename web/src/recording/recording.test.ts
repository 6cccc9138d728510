/* What of a recording is plain reckoning: the tape, what is measured of it, the stretch in hand and its notes. */
import { describe, expect, it } from 'vitest'
import type { NoteByEar } from '../api/client'
import { barsFrom, beatAt, between, clock, lasting, longer, moved, secondOf, snapped } from './inHand'
import { listen } from './listening'
import { longest } from './sound'
import { measure, rows } from './measure'
import { changed, corrected, heardAnew, inStretch, neighbour, settleSure, sureness, without, written } from './notes'
import { mixOf, sides } from './sides'
import { Tape, twoSides } from './tape'

const rate = 22050
/** Plucked tones: seconds, MIDI number. */
function plucked(seconds: number, strokes: [at: number, midi: number][], cents = 0) {
  const out = new Float32Array(Math.round(seconds * rate))
  for (const [at, midi] of strokes) {
    const hertz = 440 * 2 ** ((midi + cents / 100 - 69) / 12)
    const from = Math.round(at * rate)
    for (let i = 0; from + i < out.length && i < 0.45 * rate; i++) {
      let y = 0
      for (let h = 1; h <= 6; h++) y += Math.sin((2 * Math.PI * hertz * h * i) / rate) / h ** 1.4
      out[from + i] =
        out[from + i]! + 0.16 * y * Math.exp(-i / (0.3 * rate)) * Math.min(1, i / 60, 1 - i / (0.45 * rate))
    }
  }
  return out
}
const sourceOf = (sound: Float32Array, of = rate) => {
  const tape = new Tape(of, 1)
  tape.add([sound])
  return { rate: of, length: tape.length, mono: (from: number, into: Float32Array) => tape.mono(from, into) }
}

describe('a tape', () => {
  it('gives back what it was given, in any pieces, and silence beyond', () => {
    const tape = new Tape(1000, 2)
    const sound = Float32Array.from({ length: 1_300_000 }, (_, i) => Math.sin(i / 7) * 0.9)
    for (let at = 0; at < sound.length; at += 77_777)
      tape.add([sound.subarray(at, at + 77_777), sound.subarray(at, at + 77_777).map((x) => -x)])
    expect(tape.length).toBe(sound.length)
    for (const from of [-5, 0, 524_280, 1_048_570, 1_299_990]) {
      const got = tape.read(0, from, new Float32Array(20))
      got.forEach((x, i) => expect(x).toBeCloseTo(sound[from + i] ?? 0, 3))
      expect(tape.read(1, from, new Float32Array(20))[10]).toBeCloseTo(-got[10]!, 4)
      tape.mono(from, new Float32Array(20)).forEach((x) => expect(x).toBeCloseTo(0, 4))
    }
  })
  it('holds what is louder than full scale at full scale', () => {
    const tape = new Tape(8000, 1)
    tape.add([Float32Array.of(3, -3, Number.NaN)])
    expect([...tape.read(0, 0, new Float32Array(3))]).toEqual([1, -1, 0])
  })
  it('makes two sides of as many as a file has, none of them louder than it was', () => {
    for (const n of [1, 2, 3, 4, 5, 6, 8]) {
      const out = twoSides(Array.from({ length: n }, () => Float32Array.of(1, -1)))
      expect(out.length).toBe(n === 1 ? 1 : 2)
      for (const side of out) expect(Math.max(...side.map(Math.abs))).toBeLessThanOrEqual(1.45)
    }
    const [left, right] = twoSides([1, 0, 0, 0, 0, 0].map((x) => Float32Array.of(x)))
    expect([left![0], right![0]]).toEqual([Math.fround(1 / 1.7), 0])
  })
})

describe('sides', () => {
  it('are what is heard of both', () => {
    const both = [Float32Array.of(1, 0.5), Float32Array.of(1, -0.5)]
    const of = (side: (typeof sides)[number]['id']) => mixOf(both, side).map((s) => [...s])
    expect(of('both')).toEqual([[1, 0.5], [1, -0.5]]) // prettier-ignore
    expect(of('left')).toEqual([[1, 0.5]])
    expect(of('right')).toEqual([[1, -0.5]])
    expect(of('middle')).toEqual([[1, 0]])
    expect(of('beside')).toEqual([[0, 0.5]])
    for (const { id } of sides) expect(mixOf([both[0]!], id).length).toBeGreaterThan(0)
  })
})

describe('what is measured', () => {
  it('shows strokes where they are', () => {
    const at = [0.5, 1, 1.5, 2, 2.5]
    const m = measure(sourceOf(plucked(3, at.map((a, i) => [a, 57 + i])))) // prettier-ignore
    const peaks = [...m.onsets.keys()].filter((i) => m.onsets[i]! > 90 && m.onsets[i]! >= (m.onsets[i - 1] ?? 0) && m.onsets[i]! > (m.onsets[i + 1] ?? 0)) // prettier-ignore
    for (const a of at) expect(peaks.some((p) => Math.abs(p / m.onsetRate - a) < 0.03)).toBe(true)
    expect(m.onsets.length).toBe(m.low.length)
    expect(m.onsets.length).toBe(m.high.length)
    expect(m.tones.length).toBe(m.bass.length)
    expect(m.tones.length % 12).toBe(0)
  })
  it('tells by how much it is out of tune, within a few cents', () => {
    for (const cents of [-40, -30, -10, 0, 15, 35]) {
      const m = measure(sourceOf(plucked(6, Array.from({ length: 12 }, (_, i) => [i / 2, 52 + ((i * 5) % 17)]), cents))) // prettier-ignore
      expect(Math.abs(m.cents - cents)).toBeLessThan(7)
      expect(m.inTune).toBeGreaterThan(0.2)
    }
  })
  it('comes to an end with silence as long as is taken', () => {
    const silence = { rate: 8000, length: 8000 * longest, mono: (_: number, into: Float32Array) => into.fill(0) }
    const m = measure(silence)
    expect(m.onsets).toHaveLength(100 * longest)
    expect(m.tones.every((v) => v === 0)).toBe(true)
    expect(m.inTune).toBe(0)
  }, 30_000)
  it('tells pitch classes as they sound, in the bass too', () => {
    const m = measure(sourceOf(plucked(2, [[0, 41], [0.5, 41], [1, 41], [1.5, 41]]))) // prettier-ignore
    const sum = (of: Uint8Array, c: number) => of.filter((_, i) => i % 12 === c).reduce((a, b) => a + b, 0)
    const strongest = (of: Uint8Array) => [...Array(12).keys()].sort((a, b) => sum(of, b) - sum(of, a))[0]
    expect(strongest(m.bass)).toBe(5)
  })
  it('is none of silence, of nothing, and of eight thousand samples a second', () => {
    for (const [sound, of] of [
      [new Float32Array(0), rate],
      [new Float32Array(100), rate],
      [new Float32Array(rate * 2), rate],
      [new Float32Array(16000), 8000],
    ] as const) {
      const m = measure(sourceOf(sound, of))
      expect(m.onsets.every((x) => x === 0)).toBe(true)
      expect([m.cents, m.inTune]).toEqual([0, 0])
    }
  })
  it('draws a tone on its row', () => {
    const seen = rows(sourceOf(plucked(1, [[0, 60]])), 0, 0.4, 48, 72, 10, 0) // prettier-ignore
    const n = 25
    for (let c = 2; c < 8; c++) {
      const column = [...seen.subarray(c * n, (c + 1) * n)]
      expect(column.indexOf(Math.max(...column))).toBe(12)
    }
  })
})

describe('the ear over a stretch', () => {
  it('tells what begins in it, at its second in the recording', () => {
    const strokes: [number, number][] = [[0.3, 52], [0.9, 57], [1.5, 60], [2.1, 64], [2.7, 67]] // prettier-ignore
    const noticed = listen(sourceOf(plucked(3.4, strokes)), 0.8, 2.5, [39, 89])
    const attacks = noticed.filter((o) => o.kind === 'attack').map((o) => o.at)
    expect(attacks.length).toBe(3)
    ;[0.9, 1.5, 2.1].forEach((at, i) => expect(Math.abs(attacks[i]! - at)).toBeLessThan(0.03))
    const settled = noticed.flatMap((o) => (o.kind === 'settled' ? [Math.round(o.midi)] : []))
    expect(settled).toEqual([57, 60, 64])
  })
})

describe('the stretch in hand', () => {
  const anchors = [{ beat: 0, at: 1 }, { beat: 8, at: 5 }, { beat: 16, at: 10 }] // prettier-ignore
  it('finds beats and their seconds, in and beyond the anchors', () => {
    for (const at of [-3, 0, 1, 2.2, 5, 7.7, 10, 30]) expect(secondOf(anchors, beatAt(anchors, at)!)).toBeCloseTo(at, 9)
    expect([beatAt([], 1), secondOf([anchors[0]!], 2)]).toEqual([undefined, undefined])
  })
  it('lies on beats', () => {
    expect(snapped(anchors, 1.6)).toBe(1.5)
    expect(snapped(anchors, 1.6, 0.05)).toBe(1.6)
    expect(snapped([], 1.6)).toBe(1.6)
    expect(between(4, 2, 60)).toEqual({ from: 2, to: 4 })
    expect(between(2, 2, 60)).toEqual({ from: 2, to: 2.2 })
    expect(between(-5, 99, 60)).toEqual({ from: 0, to: 60 })
    expect(barsFrom(anchors, 4, 3.4, 2)).toEqual({ from: 3, to: 7.5 })
    expect(barsFrom([], 4, 3.4, 2)).toBeUndefined()
  })
  it('goes on by its own length in beats, and stays within the recording', () => {
    expect(moved(anchors, { from: 1, to: 3 }, 1, 60)).toEqual({ from: 3, to: 5 })
    expect(moved(anchors, { from: 3, to: 5 }, 1, 60)).toEqual({ from: 5, to: 7.5 })
    expect(moved(anchors, { from: 1, to: 3 }, -1, 60)).toEqual({ from: 1, to: 3 })
    expect(moved([], { from: 2, to: 3 }, -1, 60)).toEqual({ from: 1, to: 2 })
    expect(moved(anchors, { from: 58, to: 60 }, 1, 60)).toEqual({ from: 58, to: 60 })
    expect(longer(anchors, { from: 1, to: 3 }, 1, 60)).toEqual({ from: 1, to: 3.5 })
    expect(longer(anchors, { from: 1, to: 1.5 }, -1, 60)).toEqual({ from: 1, to: 1.5 })
    expect(longer([], { from: 1, to: 2 }, 1, 60)).toEqual({ from: 1, to: 2.25 })
  })
  it('is told as a clock tells', () => {
    expect([clock(0), clock(59.96), clock(130.44), lasting(252.4), lasting(59.6)]).toEqual(['0:00.0', '1:00.0', '2:10.4', '4:12', '1:00']) // prettier-ignore
  })
})

describe('notes by ear', () => {
  const note = (id: number, at: number, more: Partial<NoteByEar> = {}): NoteByEar => ({ id, at, length: 0.4, pitch: 60 + id, sure: 0.5, ...more }) // prettier-ignore
  const list = [note(1, 1, { settled: true }), note(2, 2), note(3, 3, { sure: 0.9 }), note(9, 8)]
  const stretch = { from: 1, to: 5 }
  it('heard anew take the place of guesses, never of what is settled nor of what lies elsewhere', () => {
    const now = heardAnew(list, stretch, [note(1, 1.5), note(2, 4), note(3, 6)])
    expect(now.map((n) => [n.id, n.at])).toEqual([[1, 1], [10, 1.5], [11, 4], [9, 8]]) // prettier-ignore
    expect(now[0]!.settled).toBe(true)
  })
  it('are settled by being corrected, or all that are sure at once', () => {
    expect(corrected(list, 2, { pitch: 70 })[1]).toMatchObject({ pitch: 70, settled: true, sure: 1 })
    expect(changed(list, 2, { at: 7 }).map((n) => n.id)).toEqual([1, 3, 2, 9])
    expect(settleSure(list, stretch).map((n) => !!n.settled)).toEqual([true, false, true, false])
    expect(list.map(sureness)).toEqual(['settled', 'not sure', 'sure', 'not sure'])
  })
  it('are written, taken away and gone through in order', () => {
    const now = written(list, 2.5, 0.3, 66)
    expect([now.id, now.notes.map((n) => n.id)]).toEqual([10, [1, 2, 10, 3, 9]])
    expect(without(list, 2).length).toBe(3)
    expect([neighbour(list, undefined, 1), neighbour(list, undefined, -1), neighbour(list, 2, 1), neighbour(list, 9, 1), neighbour([], 1, 1)]).toEqual([1, 9, 3, undefined, undefined]) // prettier-ignore
    expect(inStretch(list, stretch).map((n) => n.id)).toEqual([1, 2, 3])
  })
})
