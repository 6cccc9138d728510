/* Which database is open and whose turn it is, looked at whenever the page is seen again: open tabs turn to what is there. */
import type { QueryClient } from '@tanstack/vue-query'
import { watch } from 'vue'
import { here, playedBy } from '../memory/here'
import { look, offers } from '../memory/unsent'
import { answer, api } from './client'
import { sendLeft } from './offers'

/** How often a page that is seen looks whether it is still the same, in milliseconds. */
const every = 10_000

export const readHere = () =>
  answer(api.GET('/api/player')).then(
    (p) => playedBy(p.id),
    () => undefined,
  )

/** Turns with the database and the player, from now on. */
export function watchHere(queries: QueryClient) {
  watch(
    () => here.turned,
    async () => {
      queries.clear()
      await readHere()
      await look()
    },
  )
  watch(
    () => here.player,
    (now, before) => now && before && queries.invalidateQueries(),
  )
  const looked = () => document.visibilityState === 'visible' && void readHere()
  document.addEventListener('visibilitychange', looked)
  window.addEventListener('focus', looked)
  setInterval(looked, every)
  // What was left is looked at once the first place had the time to take up its own.
  setTimeout(() => void look(), 1500)
  setInterval(() => offers.value.length && void sendLeft(offers.value).then(look), every / 2)
  watch(offers, (now, before) => now.length > (before?.length ?? 0) && void sendLeft(now).then(look))
}
