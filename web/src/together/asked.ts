/* What the laptop asks for now, as a device shows it. */
import { shallowRef } from 'vue'
import type { Shown } from './lead'

export const asked = shallowRef<Shown>()
