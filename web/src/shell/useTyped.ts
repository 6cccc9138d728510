/* What is being typed into a field stays as it is until it is given, whatever the page draws anew meanwhile. */
import { computed, ref } from 'vue'

export function useTyped(value: () => string) {
  const typed = ref<string>()
  return {
    shown: computed(() => typed.value ?? value()),
    type: (e: Event) => void (typed.value = (e.target as HTMLInputElement).value),
    given: () => void (typed.value = undefined),
  }
}
