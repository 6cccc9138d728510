/* This page is one of a device that was let in, and follows what the laptop plays. */
import { ref } from 'vue'

/** The program is at the laptop itself by plain HTTP, and for devices by TLS alone. */
export const isDevice = location.protocol === 'https:'
export const following = ref(isDevice)
