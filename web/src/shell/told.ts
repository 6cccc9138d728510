/* What is told: read out, and to be seen for a moment. */
import { shallowRef } from 'vue'

export const told = shallowRef({ text: '' })
export const tell = (text: string) => (told.value = { text })
