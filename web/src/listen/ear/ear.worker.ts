/* The ear, beside the page and beside the sound. */
import { Ear, hop, type Observation } from './ear'
import { Reel } from './reel'

/** From the page: where the samples come from, and what to listen for. */
export type Ask =
  | { from: MessagePort; rate: number; gate: number; compass: [number, number]; reel: boolean }
  | { gate: number }
  | { compass: [number, number] }
  | { cut: [number, number] }
/** To the page, where it was asked for: what was heard between two frames. */
export interface Cut {
  wav: ArrayBuffer
}
/** To the page, some thirty times a second; frames are those of the sound. */
export interface Notice {
  observations: Observation[]
  frame: number
  level: number
  /** the pitch of now, a MIDI number with its part */
  pitch?: number
  clarity?: number
  /** what is played is cut off at full scale, again and again */
  clips?: boolean
  /** the side that is listened to by itself, since nothing comes in by the other: 0 is left */
  alone?: 0 | 1
}

/** Hops from one notice to the next. */
const batch = 5

let ear: Ear
let reel: Reel | undefined
let gate = -58
let compass: [number, number] = [38, 88]
let rate = 48000
/** What the ear's frames are counted from. */
let base: number | undefined
let heard = 0
let observations: Observation[] = []
/** Numbers go on where an ear begins anew. */
let numbered = 0
let last = 0

function begin(frame: number) {
  ear = new Ear(rate, gate, ...compass)
  base = frame
  numbered = last
}

function hear(frame: number, samples: Float32Array, alone?: 0 | 1) {
  reel?.add(frame, samples)
  // What is missing in between would move everything after it: the ear begins anew.
  if (base === undefined || frame !== base + ear.heard) begin(frame)
  for (const o of ear.hear(samples)) {
    const of = 'of' in o ? { of: o.of + numbered } : {}
    observations.push({ ...o, ...of, seq: o.seq + numbered, frame: o.frame + base! } as Observation)
    last = o.seq + numbered
  }
  if (++heard % batch) return
  const notice: Notice = { observations, frame: frame + hop, level: ear.level, pitch: ear.pitch?.midi, clarity: ear.pitch?.clarity, clips: ear.clipped > 0.05, alone } // prettier-ignore
  postMessage(notice)
  observations = []
}

onmessage = ({ data }: MessageEvent<Ask>) => {
  if ('gate' in data) {
    gate = data.gate
    if (ear) ear.gate = gate
  }
  if ('compass' in data) {
    compass = data.compass
    base = undefined
  }
  if ('cut' in data && reel) {
    const cut: Cut = { wav: reel.wav(...data.cut) }
    postMessage(cut, { transfer: [cut.wav] })
  }
  if ('from' in data) {
    rate = data.rate
    if (data.reel) reel = new Reel(rate)
    data.from.onmessage = ({ data }: MessageEvent<{ frame: number; samples: Float32Array; alone?: 0 | 1 }>) =>
      hear(data.frame, data.samples, data.alone)
  }
}
