/* What a MIDI guitar or keyboard plays: notes struck, let go and bent, at the time that the browser heard them. */
import { onScopeDispose, ref } from 'vue'

export interface Listener {
  struck: (note: { midi: number; channel: number; at: number }) => void
  released?: (note: { midi: number; channel: number; at: number }) => void
  /** half steps that the notes of a channel are bent by */
  bent?: (bend: { channel: number; by: number; at: number }) => void
}

/** Half steps of a full bend, where the instrument says nothing else. */
const usualRange = 2

export function useMidi(to: Listener) {
  const on = ref(false)
  const trouble = ref('')
  let access: MIDIAccess | undefined
  const ranges = new Map<number, number>()
  const asked = new Map<number, number>() // the parameter that a channel speaks of

  function hear(e: MIDIMessageEvent) {
    const [status, a, b] = e.data ?? []
    if (!on.value || status === undefined || a === undefined) return
    const channel = (status & 15) + 1
    const at = e.timeStamp
    const value = b ?? 0
    switch (status >> 4) {
      case 9:
        if (value) to.struck({ midi: a, channel, at })
        else to.released?.({ midi: a, channel, at })
        break
      case 8:
        to.released?.({ midi: a, channel, at })
        break
      case 14:
        to.bent?.({ channel, by: (((value << 7) | a) / 8192 - 1) * (ranges.get(channel) ?? usualRange), at })
        break
      case 11: // how far a bend goes (registered parameter 0)
        if (a === 101 || a === 100)
          asked.set(channel, a === 101 ? value << 7 : ((asked.get(channel) ?? 0) & ~127) | value)
        if (a === 6 && asked.get(channel) === 0) ranges.set(channel, value)
    }
  }
  const attach = () => access?.inputs.forEach((input) => (input.onmidimessage = hear))

  /** Listens, or no longer. */
  async function turn() {
    on.value = !on.value
    if (!on.value || access) return
    try {
      if (!navigator.requestMIDIAccess) throw new Error('This browser does not listen to MIDI.')
      access = await navigator.requestMIDIAccess()
      access.onstatechange = attach
      attach()
      if (!access.inputs.size) trouble.value = 'No MIDI instrument is connected; plug one in and play.'
    } catch (e) {
      on.value = false
      const refused = e instanceof DOMException && ['SecurityError', 'NotAllowedError'].includes(e.name)
      trouble.value = refused ? 'The browser was not allowed to listen to MIDI.' : (e as Error).message
    }
  }
  onScopeDispose(() => access?.inputs.forEach((input) => (input.onmidimessage = null)))
  return { on, trouble, turn }
}
