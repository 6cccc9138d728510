/* The node that stretches. Its module is one file for the page and for the audio thread, served by the program: the library
   would make one of a blob, which our policy forbids. */
import moduleURL from '../../node_modules/signalsmith-stretch/SignalsmithStretch.mjs?url'

export interface StretchNode extends AudioWorkletNode {
  schedule: (how: {
    /** of the context's clock */
    outputTime?: number
    active?: boolean
    input?: number
    rate?: number
    semitones?: number
    loopStart?: number
    loopEnd?: number
  }) => Promise<unknown>
  addBuffers: (sides: Float32Array[]) => Promise<number>
  dropBuffers: (before?: number) => Promise<unknown>
  configure: (how: { blockMs: number; intervalMs: number }) => Promise<unknown>
}

interface Stretch {
  default: { (context: AudioContext): Promise<StretchNode>; moduleUrl?: string }
}

/** Blocks this short keep a stroke where it is; longer ones would keep low notes smoother. */
const blocks = { blockMs: 60, intervalMs: 15 }

export async function openStretch(context: AudioContext): Promise<StretchNode> {
  const { default: open } = (await import(/* @vite-ignore */ moduleURL)) as Stretch
  open.moduleUrl = moduleURL
  const node = await open(context)
  await node.configure(blocks)
  return node
}
