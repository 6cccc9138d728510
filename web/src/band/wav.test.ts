import { describe, expect, it } from 'vitest'
import { levelsOf } from './levels'
import { Wav } from './wav'

const samples = (file: ArrayBuffer) => new Int16Array(file.slice(44))
const wave = (length: number, height: number) =>
  Float32Array.from({ length }, (_, i) => height * Math.sin((2 * Math.PI * i) / 50))

describe('a WAV file', () => {
  it('says what it holds', () => {
    const wav = new Wav(8000)
    wav.add(wave(100, 0.5), wave(100, 0.25))
    wav.add(wave(50, 0.5), wave(50, 0.25))
    const file = wav.file()
    const view = new DataView(file)
    const text = (at: number) => String.fromCharCode(...new Uint8Array(file, at, 4))
    expect([text(0), text(8), text(12), text(36)]).toEqual(['RIFF', 'WAVE', 'fmt ', 'data'])
    expect(view.getUint32(4, true)).toBe(file.byteLength - 8)
    expect(view.getUint32(40, true)).toBe(150 * 4)
    expect([view.getUint16(22, true), view.getUint32(24, true), view.getUint32(28, true)]).toEqual([2, 8000, 32000])
    expect(wav.seconds).toBeCloseTo(150 / 8000)
  })

  it('is as loud as fits, and never wraps round', () => {
    for (const height of [0.02, 0.3, 0.97, 1.6, 5]) {
      const wav = new Wav(8000)
      wav.add(wave(1000, height), wave(1000, height / 2))
      const all = samples(wav.file())
      const loudest = all.reduce((most, x) => Math.max(most, Math.abs(x)), 0)
      expect(loudest).toBeLessThanOrEqual(32767)
      expect(loudest / 32767).toBeCloseTo(Math.min(0.97, height * 4), 1)
      expect(Math.abs(all[2 * 12]! / all[2 * 12 + 1]!)).toBeCloseTo(height < 2 ? 2 : 1, height < 2 ? 1 : -1)
    }
    const silent = new Wav(8000)
    silent.add(new Float32Array(10), new Float32Array(10))
    expect(samples(silent.file()).every((x) => x === 0)).toBe(true)
  })

  it('goes down to nothing over its last pieces', () => {
    const wav = new Wav(1000)
    for (let i = 0; i < 10; i++) wav.add(new Float32Array(100).fill(0.5), new Float32Array(100).fill(0.5))
    wav.fade(0.25)
    const left = samples(wav.file()).filter((_, i) => i % 2 === 0)
    expect(left[740]).toBe(left[0])
    expect(left[875]! / left[0]!).toBeCloseTo(0.5, 1)
    expect(left.at(-1)).toBe(0)
    for (let i = 750; i < 1000; i++) expect(left[i]).toBeLessThanOrEqual(left[i - 1]!)
  })
})

it('mutes whom the player muted, and all but the lead where the click is alone', () => {
  const levels = { drums: 1, bass: 0.5, chords: 1, lead: 0.8, metronome: 1 }
  const of = (more: object) => levelsOf({ levels, muted: [], click: false, clickOnly: false, ...more })
  expect(of({})).toEqual({ drums: 1, bass: 0.5, chords: 1, lead: 0.8, 'lead beside': 0.8, metronome: 0 })
  expect(of({ click: true }).metronome).toBe(1)
  expect(of({ muted: ['bass', 'lead'] })).toMatchObject({ bass: 0, drums: 1, lead: 0, 'lead beside': 0 })
  expect(of({ clickOnly: true })).toMatchObject({ drums: 0, bass: 0, chords: 0, lead: 0.8, metronome: 1 })
})
