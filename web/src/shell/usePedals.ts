/* Pedals as they are learned and pressed: keys come through the commands' listener, MIDI switches through this one. */
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { useSetting } from '../memory/settings'
import { bounces, deedFor, forgotten, learned, switchOf, type PedalId, type Pedals } from './pedals'

export const usePedals = defineStore('pedals', () => {
  const kept = useSetting<{ pedals: Pedals }>('pedals', { pedals: {} })
  /** The deed that learns the next signal. */
  const learning = ref<PedalId>()
  const trouble = ref('')
  let access: MIDIAccess | undefined
  let pressed: (signal: string) => unknown = () => undefined
  let [last, lastAt] = ['', -Infinity]

  /** A signal came in; true where something was learned or done by it. */
  function signal(s: string, playing: boolean, at: number, act: (ids: readonly string[]) => boolean): boolean {
    if (learning.value) {
      kept.value.pedals = learned(kept.value.pedals, learning.value, s)
      learning.value = undefined
      ;[last, lastAt] = [s, at]
      return true
    }
    const deed = deedFor(kept.value.pedals, s, playing)
    if (!deed && !Object.values(kept.value.pedals).some((list) => list.includes(s))) return false
    if (s === last && at - lastAt < bounces) return true
    ;[last, lastAt] = [s, at]
    return deed ? act(deed.commands) : true
  }

  function hear(e: Event) {
    const s = switchOf((e as MIDIMessageEvent).data ?? [])
    if (s) pressed(s)
  }
  const attach = () => access?.inputs.forEach((i) => i.addEventListener('midimessage', hear))
  /** Listens to MIDI switches: where one was learned, or is to be. */
  async function listen() {
    if (access) return
    try {
      if (!navigator.requestMIDIAccess) throw new Error('This browser does not listen to MIDI; keys can be learned.')
      access = await navigator.requestMIDIAccess()
      access.onstatechange = attach
      attach()
    } catch (e) {
      const refused = e instanceof DOMException && ['SecurityError', 'NotAllowedError'].includes(e.name)
      trouble.value = refused ? 'The browser was not allowed to listen to MIDI; keys can be learned.' : (e as Error).message // prettier-ignore
    }
  }

  return {
    pedals: computed(() => kept.value.pedals),
    learning,
    trouble,
    signal,
    /** Who is told of a MIDI switch that was pressed. */
    through: (to: (signal: string) => unknown) => void (pressed = to),
    listen,
    learn(id: PedalId | undefined) {
      learning.value = id
      trouble.value = ''
      if (id) void listen()
    },
    forget: (id: PedalId, s: string) => void (kept.value.pedals = forgotten(kept.value.pedals, id, s)),
    /** MIDI is asked for only where a switch was learned. */
    wake() {
      if (Object.values(kept.value.pedals).some((list) => list.some((s) => !s.startsWith('key ')))) void listen()
    },
  }
})
