/* The model for ringing and mixed sound, in a place of its own; it is fetched when it is asked for first. */
import '@tensorflow/tfjs-backend-wasm'
import { setWasmPaths } from '@tensorflow/tfjs-backend-wasm'
import { setBackend } from '@tensorflow/tfjs-core'
import wasmURL from '@tensorflow/tfjs-backend-wasm/wasm-out/tfjs-backend-wasm-simd.wasm?url'
import topologyURL from '@spotify/basic-pitch/model/model.json?url'
import weightsURL from '@spotify/basic-pitch/model/group1-shard1of1.bin?url'
import { hear, openModel, type Model, type Sounded } from './model'

/** From the page: mono sound at the model's rate. */
export interface Ask {
  id: number
  samples: Float32Array
}
export type Tell = { id: number; part: number } | { id: number; notes: Sounded[] } | { id: number; why: string }

const tell = (t: Tell) => postMessage(t)
let model: Promise<Model> | undefined

async function open() {
  const name = 'tfjs-backend-wasm-simd.wasm'
  setWasmPaths({ [name]: wasmURL, 'tfjs-backend-wasm.wasm': wasmURL, 'tfjs-backend-wasm-threaded-simd.wasm': wasmURL })
  const [topology, weights] = await Promise.all([
    fetch(topologyURL).then((r) => r.json() as Promise<Parameters<typeof openModel>[0]>),
    fetch(weightsURL).then((r) => r.arrayBuffer()),
    setBackend('wasm'),
  ])
  return openModel(topology, weights)
}

onmessage = async ({ data: { id, samples } }: MessageEvent<Ask>) => {
  try {
    model ??= open()
    tell({ id, notes: await hear(await model, samples, (part) => tell({ id, part })) })
  } catch (e) {
    model = undefined
    tell({ id, why: `The model could not be used (${e instanceof Error ? e.message : String(e)}).` })
  }
}
