/* Whether devices are let in, as the program says it. */
import { ref } from 'vue'
import { answer, api } from '../api/client'
import type { components } from '../api/schema'

export type State = components['schemas']['State']

/** Pages at the laptop lead while it is so. */
export const networkOn = ref(false)
function heard(state: State) {
  networkOn.value = state.on
  return state
}
export const readNetwork = async () => heard(await answer(api.GET('/api/network')))
export const setNetwork = async (on: boolean, addresses: string[]) =>
  heard(await answer(api.PUT('/api/network', { body: { on, addresses } })))
export const pair = async () => heard(await answer(api.POST('/api/network/pairing')))
export const endPairing = async () => heard(await answer(api.DELETE('/api/network/pairing')))
export const putOut = async (id: string) =>
  heard(await answer(api.DELETE('/api/network/devices/{id}', { params: { path: { id } } })))
