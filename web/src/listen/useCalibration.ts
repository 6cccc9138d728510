/* The guided measure: one bar of the band alone, then eight notes to the click. Half a minute. */
import { computed, onScopeDispose, ref } from 'vue'
import type { LineBody } from '../api/client'
import { playing } from '../api/kept'
import { useBand } from '../band/useBand'
import { useSound } from '../band/useSound'
import { delayOf, gateOf, tooLoud } from './calibration'
import { useEar } from './useEar'

const tempo = 100
const beat = 60 / tempo
/** One bar of the band alone. */
const alone: LineBody = {
  title: 'The band alone', key: 'C', feel: 'shuffle', tempo, beats: 4, text: '| C7 |', low: 5, high: 9, notes: [],
} // prettier-ignore
const notes = 8

export function useCalibration() {
  const ear = useEar()
  const band = useBand()
  const sound = useSound()
  const step = ref<'' | 'band' | 'notes'>('')
  const trouble = ref('')
  const count = ref(0)
  let ends = () => {}

  const wait = (seconds: number) => new Promise((done) => setTimeout(done, seconds * 1000))

  /** How loud the band is where the microphone stands. */
  async function listenToBand() {
    const levels: number[] = []
    await band.hear({ title: alone.title, beats: 4, bars: 1, cues: [], load: playing(alone) })
    await wait(0.4)
    const stop = ear.tell((n) => levels.push(n.level))
    await wait(4 * beat)
    stop()
    band.stop()
    await wait(0.5)
    return gateOf(levels)
  }

  /** How far eight notes lie behind eight clicks. */
  async function listenToNotes() {
    const { context } = sound.engine()!
    const rate = context.sampleRate
    const first = context.currentTime + 4 * beat + 0.2
    for (let k = -4; k < notes; k++) click(context, first + k * beat, k < 0 || k % 4 === 0)
    const struck = new Map<number, number>()
    const strokes: number[] = []
    const levels: number[] = []
    const stop = ear.tell((n) => {
      count.value = Math.max(0, Math.min(notes, Math.ceil((context.currentTime - first) / beat)))
      for (const o of n.observations) {
        if (o.kind === 'attack') struck.set(o.seq, o.frame / rate)
        // A click has no pitch: what settles was played.
        if (o.kind === 'settled' && struck.has(o.of)) strokes.push(struck.get(o.of)!)
        if (o.kind === 'salience') levels.push(o.level)
      }
    })
    await wait(first - context.currentTime + notes * beat + 0.5)
    stop()
    const clicks = Array.from({ length: notes }, (_, k) => first + k * beat)
    return { ...delayOf(clicks, strokes), guitar: gateOf(levels).band }
  }

  async function start() {
    let stopped = false
    ends = () => (stopped = true)
    trouble.value = ''
    step.value = 'band'
    const { gate, band: loud } = await listenToBand()
    if (stopped) return
    ear.setGate(gate)
    ear.kept.band = loud
    step.value = 'notes'
    const { delay, heard, guitar } = await listenToNotes()
    if (stopped) return
    step.value = ''
    if (delay === undefined) {
      trouble.value = `I heard ${heard} of the ${notes} notes. Play one note on every click, louder or nearer to the microphone.`
      return
    }
    ear.kept.delay = delay
    ear.kept.guitar = guitar
    ear.kept.graded = loud - guitar <= tooLoud
  }
  function stop() {
    ends()
    if (step.value) band.stop()
    step.value = ''
  }
  onScopeDispose(stop)

  return {
    step,
    trouble,
    start,
    stop,
    forget: () => Object.assign(ear.kept, { delay: null, band: null, guitar: null, graded: true }),
    says: computed(() =>
      step.value === 'band'
        ? 'Do not play: one bar of the band alone.'
        : count.value
          ? `Play a note on every click: ${count.value} of ${notes}.`
          : 'Now play one note on every click, after four to count in.',
    ),
  }
}

/** A short click at a second of the sound. */
function click(context: AudioContext, at: number, high: boolean) {
  const tone = new OscillatorNode(context, { frequency: high ? 2400 : 1800 })
  const gain = new GainNode(context, { gain: 0.25 })
  gain.gain.setValueAtTime(0.25, at)
  gain.gain.exponentialRampToValueAtTime(0.001, at + 0.03)
  tone.connect(gain).connect(context.destination)
  tone.start(at)
  tone.stop(at + 0.04)
}
