/* The microphone and the ear behind it: on or off, how loud, which pitch, and what was noticed. */
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { useSound } from '../band/useSound'
import { useSetting } from '../memory/settings'
import captureURL from './ear/capture.worklet.ts?worker&url'
import type { Observation } from './ear/ear'
import type { Ask, Cut, Notice } from './ear/ear.worker'

export type { Observation, Notice }

/** Why nothing can be heard, and what a player can do about it. */
const troubles: Record<string, string> = {
  NotAllowedError: 'The browser was not allowed to use the microphone. Allow it for this address, then listen again.',
  NotFoundError: 'There is no microphone. Plug one in, or an audio interface, then listen again.',
  NotReadableError: 'The microphone is in use by another program. Close that, then listen again.',
  anew: 'The sound was started anew, so the ear stopped. Listen again.',
  gone: 'The microphone was unplugged. What was judged stays; plug it in and listen again.',
  none: 'This browser gives no microphone to pages at this address. Open Undaris by 127.0.0.1 or localhost.',
}

/** Seconds from what the sound makes until it is heard and comes back, where the player has measured nothing. */
const usualDelay = 0.03

export const useEar = defineStore('ear', () => {
  const kept = useSetting('ear', {
    delay: null as number | null,
    gate: -58,
    graded: true,
    guitar: null as number | null,
    band: null as number | null,
    /** takes are kept as they sounded, too */
    sound: false,
    /** the player listens by it, and it is turned on again by itself where the browser still allows it */
    wanted: false,
  })
  const sound = useSound()
  const on = ref(false)
  const opening = ref(false)
  const trouble = ref('')
  /** What it listens to. */
  const source = ref<'microphone' | 'player'>('microphone')
  const level = ref(-120)
  /** The input is so loud that it is cut off: pitches and levels cannot be trusted. */
  const clips = ref(false)
  /** Nothing comes in by this side: the other is listened to. */
  const dead = ref<'left' | 'right'>()
  /** Strokes of the player that were in tune in the take before: the next begins with that. */
  const known = ref(0)
  const pitch = shallowRef<{ midi: number; clarity: number }>()
  const cuts: ((wav: ArrayBuffer | undefined) => void)[] = []
  const listeners = new Set<(n: Notice) => void>()
  let close = () => {}
  let ask: ((a: Ask, transfer?: Transferable[]) => void) | undefined

  /** Seconds that what is played lies behind what was heard. */
  const delay = computed(() => (source.value === 'player' ? 0 : measured.value))
  const measured = computed(() => kept.value.delay ?? (sound.engine()?.context.outputLatency || 0) + usualDelay)

  function hear(n: Notice) {
    level.value = n.level
    clips.value = !!n.clips
    dead.value = n.alone === undefined ? undefined : n.alone ? 'left' : 'right'
    pitch.value = n.pitch === undefined ? undefined : { midi: n.pitch, clarity: n.clarity ?? 0 }
    for (const l of listeners) l(n)
  }

  /** Opens the microphone, as it is: without what browsers do for speech; or what the simulated player sounds. */
  async function open(from: 'microphone' | 'player' = 'microphone') {
    if (on.value || opening.value) return
    source.value = from
    opening.value = true
    known.value = from === 'player' ? 12 : 0
    trouble.value = ''
    let stream: MediaStream | undefined
    const silence = () => stream?.getTracks().forEach((t) => t.stop())
    try {
      if (from === 'microphone') {
        if (!navigator.mediaDevices) throw new DOMException('', 'none')
        stream = await navigator.mediaDevices.getUserMedia({
          audio: {
            echoCancellation: false,
            noiseSuppression: false,
            autoGainControl: false,
            channelCount: { ideal: 2 },
          },
        })
      }
      const engine = sound.engine() ?? (await sound.open())
      const { context } = engine
      if (sound.status === 'loading') sound.status = 'ready'
      await context.audioWorklet.addModule(captureURL)
      void context.resume()
      const capture = new AudioWorkletNode(context, 'undaris-capture', { numberOfOutputs: 0, channelCount: 2 })
      const worker = new Worker(new URL('./ear/ear.worker.ts', import.meta.url), { type: 'module' })
      const pipe = new MessageChannel()
      capture.port.postMessage({ to: pipe.port1 }, [pipe.port1])
      ask = (a, transfer = []) => worker.postMessage(a, transfer)
      ask(
        {
          from: pipe.port2,
          rate: context.sampleRate,
          gate: kept.value.gate,
          compass,
          reel: kept.value.sound,
        },
        [pipe.port2],
      )
      worker.onmessage = ({ data }: MessageEvent<Notice | Cut>) => {
        if ('wav' in data) return cuts.shift()?.(data.wav)
        // Frames of another sound say nothing of where the band is.
        if (sound.engine()?.context === context) return hear(data)
        close()
        trouble.value = troubles.anew!
      }
      let leave: () => void
      if (stream) {
        const microphone = new MediaStreamAudioSourceNode(context, { mediaStream: stream })
        microphone.connect(capture)
        leave = () => microphone.disconnect()
        stream.getAudioTracks()[0]!.onended = () => {
          close()
          trouble.value = troubles.gone!
        }
      } else leave = engine.player(capture)
      close = () => {
        leave()
        capture.port.postMessage({})
        worker.terminate()
        silence()
        ask = undefined
        for (const cut of cuts.splice(0)) cut(undefined)
        on.value = false
        level.value = -120
        clips.value = false
        dead.value = undefined
        pitch.value = undefined
      }
      on.value = true
    } catch (e) {
      silence() // a microphone that nothing listens to is let go
      const name = e instanceof DOMException ? e.name : ''
      trouble.value = troubles[name] ?? `The microphone cannot be heard: ${e instanceof Error ? e.message : String(e)}.`
    }
    opening.value = false
  }

  /** The lowest and the highest note of the instrument in hand: beyond them there is nothing to hear. */
  let compass: [number, number] = [38, 88]
  function listenTo(lowest: number, highest: number) {
    compass = [lowest, highest]
    ask?.({ compass })
  }
  function setGate(gate: number) {
    kept.value.gate = gate
    ask?.({ gate })
  }

  /** What was heard from one frame to another, as a WAV; nothing where it was not to be kept. */
  const cut = (from: number, to: number) =>
    new Promise<ArrayBuffer | undefined>((done) => {
      if (!ask || !kept.value.sound) return done(undefined)
      cuts.push(done)
      ask({ cut: [Math.round(from), Math.round(to)] })
      setTimeout(() => done(undefined), 2000)
    })

  return {
    kept,
    source,
    cut,
    on,
    opening,
    trouble,
    level,
    clips,
    dead,
    pitch,
    delay,
    known,
    open,
    close: () => close(),
    turn() {
      kept.value.wanted = !on.value
      if (on.value) close()
      else void open()
    },
    /** Turns it on again where it was on the last time and the browser need not ask. */
    async wake() {
      if (!kept.value.wanted || on.value || opening.value) return
      const may = await navigator.permissions?.query({ name: 'microphone' as PermissionName }).catch(() => undefined)
      if (may?.state === 'granted') await open()
    },
    listenTo,
    setGate,
    /** Has everything that is noticed told, until what it returns is called. */
    tell(listener: (n: Notice) => void) {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
  }
})
