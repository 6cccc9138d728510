import { describe, expect, it } from 'vitest'
import { hop, Onsets } from './onsets'
import { Reel } from './reel'
import { Salience } from './salience'
import { Spectrum } from './spectrum'
import { Sway, type Swaying } from './sway'

const rate = 48000
const hertz = (midi: number) => 440 * 2 ** ((midi - 69) / 12)
/** A plucked string: harmonics that fall off and fade, from a frame on. */
function pluck(into: Float32Array, from: number, midi: number, loud = 0.3) {
  for (let i = from; i < into.length; i++) {
    const t = (i - from) / rate
    for (let h = 1; h <= 8; h++)
      into[i]! += loud * 0.7 ** h * Math.exp(-t * (1.5 + h / 2)) * Math.sin(2 * Math.PI * h * hertz(midi) * t)
  }
  return into
}

describe('the spectrum', () => {
  it('of a full-scale sine is 1 in its bin and little elsewhere', () => {
    const s = new Spectrum(1024)
    const sine = Float32Array.from({ length: 1024 }, (_, i) => Math.sin((2 * Math.PI * 64 * i) / 1024))
    const of = s.of(sine)
    expect(of).toHaveLength(512)
    expect(of[64]).toBeCloseTo(1, 2)
    expect(of[63]).toBeCloseTo(0.5, 1)
    expect(Math.max(...of.slice(0, 60), ...of.slice(70))).toBeLessThan(0.001)
  })
  it('looks at no more than its length, and writes where it is told', () => {
    const s = new Spectrum(1024, 256)
    const sine = Float32Array.from({ length: 1024 }, (_, i) => (i < 256 ? Math.sin((2 * Math.PI * 64 * i) / 1024) : 9))
    const into = new Float32Array(512)
    expect(s.of(sine, into)).toBe(into)
    expect(into[64]).toBeCloseTo(1, 1)
  })
})

describe('strokes', () => {
  /** The frames at which strokes are found in a sound. */
  function found(sound: Float32Array) {
    const onsets = new Onsets(rate)
    const list: number[] = []
    for (let end = 1024; end <= sound.length; end += hop) {
      const at = onsets.hear(sound.subarray(end - 1024, end), end)
      if (at !== undefined) list.push(at)
    }
    return list
  }
  it('are found where they are, within 12 ms, at every pitch of a guitar', () => {
    for (let midi = 40; midi <= 84; midi += 4) {
      const at = found(pluck(new Float32Array(rate), 24000, midi))
      expect(at, `MIDI ${midi}`).toHaveLength(1)
      expect(Math.abs(at[0]! - 24000) / rate, `MIDI ${midi}`).toBeLessThan(0.012)
    }
  })
  it('are told apart from 60 ms on, and none is found in silence, in a held tone or in vibrato', () => {
    const two = pluck(pluck(new Float32Array(rate), 12000, 60), 12000 + 0.15 * rate, 64)
    expect(found(two)).toHaveLength(2)
    expect(found(new Float32Array(rate))).toEqual([])
    const held = Float32Array.from({ length: 2 * rate }, (_, i) => 0.3 * Math.min(1, i / 4800) * Math.sin((2 * Math.PI * 220 * i) / rate)) // prettier-ignore
    expect(found(held.subarray(rate))).toEqual([])
    let phase = 0
    const swaying = Float32Array.from({ length: rate }, (_, i) => 0.3 * Math.sin((phase += (2 * Math.PI * 220 * 2 ** ((0.3 * Math.sin((2 * Math.PI * 5 * i) / rate)) / 12)) / rate))) // prettier-ignore
    expect(found(swaying.subarray(4800))).toEqual([])
  })
})

describe('what a stroke brought', () => {
  const s = new Salience(rate, 40, 88)
  const after = (...midis: number[]) =>
    midis.reduce<Float32Array>((sound, m) => pluck(sound, 0, m), new Float32Array(s.length))
  it('is the note itself first, at every pitch, and all of it is new after silence', () => {
    for (let midi = 40; midi <= 79; midi += 3) {
      const of = s.of(new Float32Array(s.length), after(midi))
      expect(of.candidates[0], `MIDI ${midi}`).toEqual([midi, 1])
      expect(of.fresh).toBeGreaterThan(0.99)
      expect(of.candidates.length).toBeLessThanOrEqual(5)
    }
  })
  it('is not what rings on', () => {
    const ringing = pluck(new Float32Array(3 * rate), 0, 52)
    const before = ringing.subarray(rate, rate + s.length)
    const then = ringing.slice(rate + s.length, rate + 2 * s.length)
    expect(s.of(before, then).fresh).toBeLessThan(0.05)
    const struck = pluck(Float32Array.from(then), 0, 67)
    expect(s.of(before, struck).candidates[0]![0]).toBe(67)
  })
  it('is both of a double stop', () => {
    const both = s.of(new Float32Array(s.length), after(64, 69)).candidates.slice(0, 3).map(([m]) => m) // prettier-ignore
    expect(both).toContain(64)
    expect(both).toContain(69)
  })
  it('of silence is nothing', () => {
    expect(s.of(new Float32Array(s.length), new Float32Array(s.length))).toEqual({ candidates: [], fresh: 0 })
  })
})

describe('vibrato', () => {
  /** What is told of a pitch that sways so wide, so often. */
  function told(
    width: number,
    often: number,
    seconds = 1,
    at = (t: number) => width * Math.sin(2 * Math.PI * often * t),
  ) {
    // prettier-ignore
    const sway = new Sway(rate)
    const list: Swaying[] = []
    for (let i = 0; i < (seconds * rate) / hop; i++) {
      const sways = sway.hear(60 + at((i * hop) / rate))
      if (sways) list.push(sways)
    }
    return list
  }
  it('is told as wide, as often, as even as it is, and back to where it comes', () => {
    for (const width of [0.1, 0.3, 0.6, 1])
      for (const often of [2.5, 3, 4, 5, 6.5, 8, 10]) {
        const list = told(width, often, 1.6)
        expect(list.length, `${width} ${often}`).toBeGreaterThan(0)
        const last = list.at(-1)!
        expect(Math.abs(last.width - width) / width).toBeLessThan(0.12)
        expect(Math.abs(last.rate - often) / often, `${often} a second: ${last.rate}`).toBeLessThan(0.06)
        expect(last.uneven).toBeLessThan(0.1)
        expect(Math.abs(last.low - (60 - width))).toBeLessThan(0.15 * width + 0.01)
      }
  })
  it('is uneven where the hand is: every other sway half as long again', () => {
    const turns = (t: number) => (t % 0.5 < 0.3 ? Math.sin((2 * Math.PI * (t % 0.5)) / 0.3) : Math.sin((2 * Math.PI * ((t % 0.5) - 0.3)) / 0.2)) // prettier-ignore
    expect(told(0.3, 0, 2.5, (t) => 0.3 * turns(t)).at(-1)!.uneven).toBeGreaterThan(0.15)
  })
  it('that never comes back lies above its note, and one of a finger that does begins there', () => {
    const up = (by: number) => (t: number) => by + 0.3 * (1 - Math.cos(2 * Math.PI * 5 * t))
    expect(told(0.3, 0, 1.5, up(0)).at(-1)!.low).toBeCloseTo(60, 1)
    expect(told(0.3, 0, 1.5, up(0.4)).at(-1)!.low).toBeCloseTo(60.4, 1)
  })
  it('is told again as it is better known, four times at most', () => {
    expect(told(0.3, 5, 1)).toHaveLength(2)
    expect(told(0.3, 5, 20)).toHaveLength(4)
  })
  it('is not a held tone, a tremble, a bend, a slow drift or a trill', () => {
    expect(told(0, 5)).toEqual([])
    expect(told(0.03, 5)).toEqual([])
    expect(told(1.4, 5)).toEqual([])
    expect(told(0.3, 1)).toEqual([])
    expect(told(0.3, 14)).toEqual([])
    expect(told(0, 0, 1, (t) => Math.min(2, 4 * t))).toEqual([])
  })
  it('needs a third of a second, and begins anew with another note', () => {
    expect(told(0.3, 6, 0.33)).toEqual([])
    const sway = new Sway(rate)
    const hear = (n: number) => Array.from({ length: n }, (_, i) => sway.hear(60 + 0.3 * Math.sin((2 * Math.PI * 6 * i * hop) / rate))).filter(Boolean) // prettier-ignore
    expect(hear(100)).toHaveLength(1)
    sway.begin()
    expect(hear(60)).toHaveLength(0)
    expect(hear(40)).toHaveLength(1)
  })
})

describe('what was heard lately', () => {
  const text = (file: ArrayBuffer, at: number) => String.fromCharCode(...new Uint8Array(file, at, 4))
  const samples = (file: ArrayBuffer) => new Int16Array(file.slice(44))
  it('is a WAV of one channel at half the rate', () => {
    const reel = new Reel(48000)
    reel.add(
      1000,
      Float32Array.from({ length: 8 }, (_, i) => i / 10),
    )
    const file = reel.wav(1000, 1008)
    const view = new DataView(file)
    expect([text(file, 0), text(file, 8), text(file, 36)]).toEqual(['RIFF', 'WAVE', 'data'])
    expect([view.getUint32(4, true), view.getUint32(16, true), view.getUint16(20, true), view.getUint16(22, true), view.getUint32(24, true), view.getUint32(28, true), view.getUint16(32, true), view.getUint16(34, true), view.getUint32(40, true)]).toEqual([44, 16, 1, 1, 24000, 48000, 2, 16, 8]) // prettier-ignore
    expect([...samples(file)]).toEqual([0.05, 0.25, 0.45, 0.65].map((x) => Math.round(32767 * x)))
  })
  it('is silent where nothing was heard: before, between and after', () => {
    const reel = new Reel(48000)
    reel.add(100, new Float32Array(4).fill(1))
    reel.add(108, new Float32Array(4).fill(-2))
    expect([...samples(reel.wav(96, 116))]).toEqual([0, 0, 32767, 32767, 0, 0, -32767, -32767, 0, 0])
    expect(samples(reel.wav(100, 90))).toHaveLength(0)
    expect([...samples(new Reel(48000).wav(0, 4))]).toEqual([0, 0])
  })
  it('goes back four minutes, and no further', () => {
    const reel = new Reel(1000)
    for (let at = 0; at < 300_000; at += 1000) reel.add(at, new Float32Array(1000).fill(at / 300_000))
    expect([...samples(reel.wav(0, 4))]).toEqual([0, 0])
    expect([...samples(reel.wav(59_998, 60_004))].map((x) => x > 0)).toEqual([false, true, true])
    expect(samples(reel.wav(299_000, 299_002))[0]).toBe(Math.round((32767 * 299) / 300))
  })
})
