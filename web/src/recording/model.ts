/*
 * Notes of ringing or mixed sound, by a model that has learned to tell them: Bittner and others, A Lightweight
 * Instrument-Agnostic Model for Polyphonic Note Transcription and Multipitch Estimation, 2022. It hears two seconds at once.
 */
import type { GraphModel } from '@tensorflow/tfjs-converter'
import { loadGraphModel } from '@tensorflow/tfjs-converter'
import { io, tensor, type Tensor } from '@tensorflow/tfjs-core'
import { modelRate } from './modelRate'
import { noteFramesToTime, outputToNotesPoly } from '@spotify/basic-pitch/esm/toMidi.js'

/** A note that the model tells. */
export interface Sounded {
  /** seconds */
  at: number
  length: number
  midi: number
  /** how strongly it sounds, 0 to 1 */
  strength: number
  /** how clearly it begins, 0 to 1 */
  onset: number
}

const hop = 256
const windowLength = 2 * modelRate - hop
const overlap = 30
const step = windowLength - overlap * hop

/** From how much on something begins, and sounds. */
const onsetFrom = 0.25
const soundsFrom = 0.2
/** Frames that a note lasts at least. */
const shortest = 6

export type Model = GraphModel

export async function openModel(
  topology: { modelTopology: unknown; weightsManifest: { weights: unknown }[] },
  weights: ArrayBuffer,
): Promise<Model> {
  return loadGraphModel(
    io.fromMemory({
      modelTopology: topology.modelTopology as object,
      weightSpecs: topology.weightsManifest.flatMap((m) => m.weights) as io.WeightsManifestEntry[],
      weightData: weights,
    }),
  )
}

/** Hears mono sound at the model's rate. */
export async function hear(
  model: Model,
  samples: Float32Array,
  progress: (part: number) => void = () => {},
): Promise<Sounded[]> {
  const half = (overlap / 2) * hop
  const padded = new Float32Array(samples.length + half)
  padded.set(samples, half)
  const frames: number[][] = []
  const onsets: number[][] = []
  const wanted = Math.floor((samples.length / modelRate) * Math.floor(modelRate / hop))
  for (let at = 0; at < padded.length && frames.length < wanted; at += step) {
    const input = new Float32Array(windowLength)
    input.set(padded.subarray(at, at + windowLength))
    const x = tensor(input, [1, windowLength, 1])
    const told = model.execute(x, ['Identity_1', 'Identity_2']) as Tensor[]
    for (const [i, to] of [frames, onsets].entries()) {
      const [, rows, columns] = told[i]!.shape as [number, number, number]
      const data = (await told[i]!.data()) as Float32Array
      for (let r = overlap / 2; r < rows - overlap / 2; r++) to.push([...data.subarray(r * columns, (r + 1) * columns)])
    }
    for (const t of [x, ...told]) t.dispose()
    progress(Math.min(1, frames.length / wanted))
  }
  const cut = (list: number[][]) => list.slice(0, wanted)
  // The library writes into what it is given.
  const begins = onsets.map((row) => [...row])
  const framed = outputToNotesPoly(cut(frames), cut(onsets), onsetFrom, soundsFrom, shortest, true, null, null, false)
  return noteFramesToTime(framed)
    .map((n, i) => ({
      at: n.startTimeSeconds,
      length: n.durationSeconds,
      midi: n.pitchMidi,
      strength: n.amplitude,
      onset: Math.max(...[-1, 0, 1].map((d) => begins[framed[i]!.startFrame + d]?.[n.pitchMidi - 21] ?? 0)),
    }))
    .sort((a, b) => a.at - b.at || a.midi - b.midi)
}
