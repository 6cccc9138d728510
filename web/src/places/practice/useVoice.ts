/* Calls are spoken where the browser has a voice. */
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'

export function useVoice() {
  const on = useLocalStorage('undaris-spoken', true)
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
