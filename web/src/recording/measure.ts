/*
 * What is measured of a recording, for the core to make guesses of: how strongly something begins, which pitch classes sound,
 * and by how many cents it is out of tune. Strengths are bytes, of which only the relation counts.
 */
import { Spectrum } from '../listen/ear/spectrum'

/** What is measured from: mono sound, asked for piece by piece. */
export interface Source {
  rate: number
  /** in samples */
  length: number
  mono: (from: number, into: Float32Array) => Float32Array
}

export interface Measured {
  onsetRate: number
  onsets: Uint8Array
  low: Uint8Array
  high: Uint8Array
  toneRate: number
  tones: Uint8Array
  bass: Uint8Array
  /** that it lies above instruments in tune, -50 to 50 */
  cents: number
  /** how much speaks for that, 0 to 1 */
  inTune: number
}

const onsetRate = 100
const toneRate = 10
/** Hertz between which a tone counts as one, and beneath which it is the bass's. */
const lowest = 40
const bassUpTo = 190
const highest = 2100

/** Long work, some at a time: yields what part of it is done. */
export type Work<T> = Generator<number, T, void>

/** Does all of it at once. */
export function done<T>(work: Work<T>): T {
  for (;;) {
    const step = work.next()
    if (step.done) return step.value
  }
}

/** What is measured, so many frames at a time that whoever waits for sound meanwhile gets it. */
export function* measuring(source: Source): Work<Measured> {
  const rise = yield* within(onsets(source), 0, 0.45)
  return { ...rise, ...(yield* within(tones(source), 0.45, 1)) }
}

function* within<T>(work: Work<T>, from: number, to: number): Work<T> {
  for (;;) {
    const step = work.next()
    if (step.done) return step.value
    yield from + step.value * (to - from)
  }
}

/** Frames between two breaths. */
const some = 60

export const measure = (source: Source): Measured => done(measuring(source))

/** The flux of a logarithmic spectrum, in all, of what is low and of what is high, a hundred times a second. */
function* onsets(source: Source): Work<Pick<Measured, 'onsetRate' | 'onsets' | 'low' | 'high'>> {
  const size = source.rate > 24000 ? 2048 : 1024
  const spectrum = new Spectrum(size)
  const frames = Math.max(0, Math.floor((source.length / source.rate) * onsetRate))
  const [all, low, high] = [new Float32Array(frames), new Float32Array(frames), new Float32Array(frames)]
  const window = new Float32Array(size)
  const bin = (hertz: number) => Math.min(size / 2 - 1, Math.max(1, Math.round((hertz * size) / source.rate)))
  const [deep, voices, bright, top] = [bin(160), bin(200), bin(2000), bin(8000)]
  let [now, before] = [new Float32Array(top), new Float32Array(top)] // above that nothing is counted
  for (let i = 0; i < frames; i++) {
    // What rises in a window lies about its middle.
    source.mono(Math.round((i * source.rate) / onsetRate - size / 2), window)
    spectrum.of(window, now)
    let [a, l, h] = [0, 0, 0]
    for (let k = 1; k < top; k++) {
      now[k] = Math.log10(1 + 1000 * now[k]!)
      const up = now[k]! - before[k]!
      if (up <= 0) continue // before the beginning there is silence
      if (k <= deep) l += up
      if (k >= voices) a += up
      if (k >= bright) h += up
    }
    // What is low counts for as much as all else together has it.
    all[i] = a / Math.sqrt(top) + l / Math.sqrt(deep)
    low[i] = l
    high[i] = h
    ;[now, before] = [before, now]
    if (i % some === 0) yield i / frames
  }
  return { onsetRate, onsets: bytes(all), low: bytes(low), high: bytes(high) }
}

/** Bytes of strengths: what only few exceed is the most. */
function bytes(values: Float32Array): Uint8Array {
  const most =
    Float32Array.from(values).sort()[Math.floor(values.length * 0.999)] ||
    values.reduce((a, b) => Math.max(a, b), 0) ||
    1
  return Uint8Array.from(values, (v) => Math.min(255, Math.round((255 * v) / most)))
}

/** Peaks of the spectrum as hertz and strength: the tones that sound, and their partials. */
function* tones(source: Source): Work<Pick<Measured, 'toneRate' | 'tones' | 'bass' | 'cents' | 'inTune'>> {
  const size = source.rate > 24000 ? 8192 : 4096
  const spectrum = new Spectrum(size)
  const frames = Math.max(0, Math.floor((source.length / source.rate) * toneRate))
  const window = new Float32Array(size)
  const magnitude = new Float32Array(size / 2)
  const [from, to] = [Math.max(2, Math.floor((lowest * size) / source.rate)), Math.min(size / 2 - 2, Math.ceil((highest * size) / source.rate))] // prettier-ignore
  const peaks: [midi: number, strength: number][][] = []
  // Where in its half step each peak lies, as an angle: all together point to how far it is out of tune.
  let [x, y, weight] = [0, 0, 0]
  for (let i = 0; i < frames; i++) {
    source.mono(Math.round((i * source.rate) / toneRate - size / 2), window)
    spectrum.of(window, magnitude)
    const list: [number, number][] = []
    for (let k = from; k < to; k++) {
      const [a, b, c] = [magnitude[k - 1]!, magnitude[k]!, magnitude[k + 1]!]
      if (b <= a || b < c || b < 2e-4) continue
      // Between the bins, by a parabola through the logarithms.
      const [la, lb, lc] = [Math.log(a + 1e-9), Math.log(b), Math.log(c + 1e-9)]
      const off = (la - lc) / (2 * (la - 2 * lb + lc))
      const hertz = ((k + Math.max(-0.5, Math.min(0.5, off))) * source.rate) / size
      const midi = 69 + 12 * Math.log2(hertz / 440)
      const strength = Math.sqrt(b)
      list.push([midi, strength])
      if (hertz > 160) {
        const angle = 2 * Math.PI * midi
        x += strength * Math.cos(angle)
        y += strength * Math.sin(angle)
        weight += strength
      }
    }
    peaks.push(list)
    if (i % some === 0) yield i / frames
  }
  const cents = weight ? Math.round((Math.atan2(y, x) / (2 * Math.PI)) * 100) : 0
  const inTune = weight ? Math.hypot(x, y) / weight : 0
  const [all, bass] = [new Float32Array(12 * frames), new Float32Array(12 * frames)]
  const deep = 69 + 12 * Math.log2(bassUpTo / 440)
  peaks.forEach((list, i) => {
    for (const [midi, strength] of list) {
      const true_ = midi - cents / 100
      const near = Math.round(true_)
      const pure = Math.max(0, 1 - 2.2 * Math.abs(true_ - near))
      const at = 12 * i + (((near % 12) + 12) % 12)
      // What is high is mostly partials, and counts for less.
      const counts = strength * pure * (midi > 76 ? 2 ** ((76 - midi) / 10) : 1)
      all[at] = all[at]! + counts
      if (midi < deep) bass[at] = bass[at]! + strength * pure
    }
  })
  return { toneRate, tones: bytes(all), bass: bytes(bass), cents, inTune }
}

/** How much of each half step sounds, from the lowest row up, column after column: to be drawn. */
export function rows(
  source: Source,
  from: number,
  to: number,
  low: number,
  high: number,
  columns: number,
  cents: number,
) {
  const size = source.rate > 24000 ? 8192 : 4096
  const length = Math.round(size * 0.75)
  const spectrum = new Spectrum(size, length)
  const [window, magnitude] = [new Float32Array(size), new Float32Array(size / 2)]
  const n = high - low + 1
  const out = new Float32Array(columns * n)
  for (let i = 0; i < columns; i++) {
    const at = from + ((i + 0.5) * (to - from)) / columns
    source.mono(Math.round(at * source.rate - length / 2), window.subarray(0, length))
    spectrum.of(window, magnitude)
    for (let r = 0; r < n; r++) {
      const hertz = 440 * 2 ** ((low + r + cents / 100 - 69) / 12)
      const [a, b] = [
        Math.round((hertz * size) / source.rate / 1.021),
        Math.round((hertz * size * 1.021) / source.rate),
      ]
      let most = 0
      for (let k = a; k <= b && k < magnitude.length; k++) most = Math.max(most, magnitude[k]!)
      out[i * n + r] = most
    }
  }
  const loud = out.reduce((a, b) => Math.max(a, b), 1e-4)
  return Uint8Array.from(out, (v) => Math.max(0, Math.round(255 * (1 + Math.log10(Math.max(1e-9, v / loud)) / 2.2))))
}
