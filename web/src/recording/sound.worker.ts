/* The sound of a recording, beside the page: read, decoded and held here, measured and listened to here; the page gets pieces. */
import { ALL_FORMATS, AudioSampleSink, Input, UrlSource, type InputAudioTrack } from 'mediabunny'
import { listening, type Noticed } from './listening'
import { measuring, rows, type Measured, type Work } from './measure'
import { Tape, twoSides } from './tape'

/** From the page. */
export type Ask =
  /** from: of one that lasts longer than most, from where on it is read; else it is asked */
  | { do: 'open'; url: string; from?: number; most: number }
  | { do: 'take'; sides: Float32Array[]; rate: number; whole: boolean }
  | { do: 'slice'; id: number; from: number; to: number }
  | { do: 'measure'; id: number }
  | { do: 'rows'; id: number; from: number; to: number; low: number; high: number; columns: number; cents: number }
  | { do: 'listen'; id: number; from: number; to: number; compass: [number, number] }
/** To the page. */
export type Tell =
  | { is: 'opened'; rate: number; channels: number; seconds: number; picture: boolean; from: number }
  /** It lasts so long that a part of it has to be chosen. */
  | { is: 'long'; seconds: number }
  /** How loud each hundredth of a second is, from one on: bytes. */
  | { is: 'peaks'; at: number; peaks: Uint8Array }
  | { is: 'whole'; seconds: number; loud: number }
  /** It cannot be decoded here; the page may know how. */
  | { is: 'unread'; why: string }
  | { is: 'slice'; id: number; sides: Float32Array[]; rate: number }
  | { is: 'measured'; id: number; measured: Measured }
  | { is: 'measuring'; part: number }
  | { is: 'rows'; id: number; rows: Uint8Array }
  | { is: 'noticed'; id: number; noticed: Noticed[] }
  /** What was asked could not be done. */
  | { is: 'failed'; id: number; why: string }

/** How often a second the loudness is told. */
export const peakRate = 100

const tell = (t: Tell, transfer: Transferable[] = []) => postMessage(t, { transfer })

let tape: Tape | undefined
/** Seconds of the recording at which the tape begins. */
let base = 0
let told = 0
let power = 0
let wanted = 0
const waiting: Ask[] = []
let whole = false

function begin(rate: number, channels: number, from: number) {
  tape = new Tape(rate, channels > 1 ? 2 : 1)
  base = from
  told = 0
  power = 0
  whole = false
}

function add(sides: Float32Array[]) {
  tape!.add(twoSides(sides))
  loudness(false)
  for (const ask of waiting.filter(there)) {
    waiting.splice(waiting.indexOf(ask), 1)
    answer(ask)
  }
}

/** What is asked for is decoded. What is measured of a part would be told of the whole. */
function there(ask: Ask): boolean {
  if (whole) return true
  return (ask.do === 'slice' || ask.do === 'rows') && !!tape && base + tape.seconds >= ask.to
}

/** Tells how loud the last pieces are, some at a time. */
function loudness(all: boolean) {
  const t = tape!
  const step = t.rate / peakRate
  const known = Math.floor(t.length / step)
  if (!all && known - told < 2 * peakRate) return
  const peaks = new Uint8Array(Math.max(0, known - told))
  const samples = new Float32Array(Math.ceil(step))
  for (let i = 0; i < peaks.length; i++) {
    t.mono(Math.round((told + i) * step), samples)
    let most = 0
    for (const s of samples) {
      most = Math.max(most, Math.abs(s))
      power += s * s
    }
    peaks[i] = Math.min(255, Math.round(most * 255))
  }
  tell({ is: 'peaks', at: Math.round(base * peakRate) + told, peaks }, [peaks.buffer])
  told = known
}

function done() {
  loudness(true)
  whole = true
  const t = tape!
  tell({ is: 'whole', seconds: base + t.seconds, loud: 10 * Math.log10(power / Math.max(1, t.length) + 1e-9) })
  for (const ask of waiting.splice(0)) answer(ask)
}

async function open(url: string, part: number | undefined, most: number) {
  const mine = ++wanted
  const input = new Input({
    source: new UrlSource(new URL(url, location.origin), { getRetryDelay: () => null }),
    formats: ALL_FORMATS,
  })
  try {
    const track = await input.getPrimaryAudioTrack()
    if (!track) return tell({ is: 'unread', why: 'there is no sound in it' })
    const picture = !!(await input.getPrimaryVideoTrack())
    if (!(await track.canDecode())) return tell({ is: 'unread', why: 'its sound is of a kind that this browser does not decode in pieces' }) // prettier-ignore
    const seconds = await track.computeDuration()
    if (mine !== wanted) return
    if (seconds > most && part === undefined) return tell({ is: 'long', seconds })
    const from = part ?? 0
    const to = from + most
    begin(track.sampleRate, track.numberOfChannels, from)
    tell({ is: 'opened', rate: tape!.rate, channels: track.numberOfChannels, seconds, picture, from })
    await decode(track, from, to, () => mine === wanted)
    if (mine === wanted) done()
  } catch (e) {
    if (mine === wanted) tell({ is: 'unread', why: e instanceof Error ? e.message : String(e) })
  } finally {
    input.dispose()
  }
}

async function decode(track: InputAudioTrack, from: number, to: number, go: () => boolean) {
  let at = from
  for await (const sample of new AudioSampleSink(track).samples(from, to)) {
    if (!go()) return sample.close()
    // Some codecs come out at another rate than their head says.
    if (!tape!.length && sample.sampleRate !== tape!.rate) begin(sample.sampleRate, sample.numberOfChannels, from)
    const n = sample.numberOfFrames
    const sides = Array.from({ length: sample.numberOfChannels }, (_, planeIndex) => {
      const side = new Float32Array(n)
      sample.copyTo(side, { planeIndex, format: 'f32-planar' })
      return side
    })
    // What is missing between two pieces is silence; what was before the stretch is cut.
    const gap = Math.round((sample.timestamp - at) * tape!.rate)
    if (gap > 0.02 * tape!.rate && gap < 600 * tape!.rate) add(sides.map(() => new Float32Array(gap)))
    const late = Math.max(0, Math.round((from - sample.timestamp) * tape!.rate))
    if (late < n) add(late ? sides.map((s) => s.subarray(late)) : sides)
    at = sample.timestamp + n / tape!.rate
    sample.close()
  }
}

/** The tape as what is measured wants it, from a second of the recording on. */
const source = (t: Tape) => ({
  rate: t.rate,
  length: t.length,
  mono: (from: number, into: Float32Array) => t.mono(from, into),
})

function answer(ask: Ask) {
  const t = tape
  if (!t) return
  if (ask.do === 'slice') {
    const from = Math.round((ask.from - base) * t.rate)
    const n = Math.max(1, Math.round((ask.to - ask.from) * t.rate))
    const sides = Array.from({ length: t.channels }, (_, c) => t.read(c, from, new Float32Array(n)))
    return tell({ is: 'slice', id: ask.id, sides, rate: t.rate }, sides.map((s) => s.buffer)) // prettier-ignore
  }
  if (ask.do === 'rows') {
    const seen = rows(source(t), ask.from - base, ask.to - base, ask.low, ask.high, ask.columns, ask.cents)
    return tell({ is: 'rows', id: ask.id, rows: seen }, [seen.buffer])
  }
  if (ask.do === 'listen')
    return worked(ask.id, listening(source(t), ask.from - base, ask.to - base, ask.compass), (noticed) =>
      tell({ is: 'noticed', id: ask.id, noticed: noticed.map((o) => ({ ...o, at: o.at + base })) }),
    )
  if (ask.do === 'measure')
    worked(
      ask.id,
      measuring(source(t)),
      (measured) => tell({ is: 'measured', id: ask.id, measured }),
      (part) => tell({ is: 'measuring', part }),
    )
}

/* A message to oneself comes behind what was asked before it, and at once where nothing was. */
const breath = new MessageChannel()
const going: (() => void)[] = []
breath.port1.onmessage = () => going.shift()?.()

/** Does long work some at a time; what is asked for meanwhile, such as sound that is about to be heard, comes between. */
function worked<T>(id: number, work: Work<T>, ready: (t: T) => void, progress: (part: number) => void = () => {}) {
  try {
    const step = work.next()
    if (step.done) return ready(step.value)
    progress(step.value)
    going.push(() => worked(id, work, ready, progress))
    breath.port2.postMessage(0)
  } catch (e) {
    tell({ is: 'failed', id, why: e instanceof Error ? e.message : String(e) })
  }
}

onmessage = ({ data: ask }: MessageEvent<Ask>) => {
  if (ask.do === 'open') return void open(ask.url, ask.from, ask.most)
  if (ask.do === 'take') {
    if (!tape || whole) {
      wanted++
      begin(ask.rate, ask.sides.length, 0)
    }
    add(ask.sides)
    if (ask.whole) done()
    return
  }
  if (!there(ask)) return void waiting.push(ask)
  answer(ask)
}
