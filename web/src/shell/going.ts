/* Whether another place is being gone to: what a place still wants in the address is not written any more then, since that
   would call the way off. */
import type { Router } from 'vue-router'

export const going = { elsewhere: false }

export function watchGoing(router: Router) {
  router.beforeEach((to, from) => {
    going.elsewhere = to.path !== from.path
  })
  router.afterEach(() => {
    going.elsewhere = false
  })
}
