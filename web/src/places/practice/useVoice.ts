/* Calls and chords are spoken where the browser has a voice and the player wants it. */
import { computed } from 'vue'
import { useSetting } from '../../memory/settings'

/** what is spoken has a name of its own, under which it is remembered whether it is wanted. */
export function useVoice(what: 'spoken' | 'ahead' | 'prompts' = 'spoken', wanted = true) {
  const on = useSetting(what, wanted)
  const can = computed(() => typeof speechSynthesis !== 'undefined')
  function say(text: string) {
    if (!on.value || !can.value) return
    speechSynthesis.cancel()
    const words = new SpeechSynthesisUtterance(text)
    words.lang = 'en'
    speechSynthesis.speak(words)
  }
  return { on, can, say, turn: () => (on.value = !on.value) }
}
