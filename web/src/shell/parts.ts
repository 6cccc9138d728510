/* Parts of the library that are loaded after the first drawing. */
import { later } from './later'
import SelectWaiting from './SelectWaiting.vue'

export const Select = later(() => import('primevue/select'), SelectWaiting) as typeof import('primevue/select').default
export const InputNumber = later(() => import('primevue/inputnumber'))
export const Slider = later(() => import('primevue/slider'))
export const Popover = later(() => import('./ThePopover.vue'))
export const Dialog = later(() => import('primevue/dialog'))
export const Menu = later(() => import('primevue/menu'))
