import { describe, expect, it } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import { going, watchGoing } from './going'

describe('going to another place', () => {
  it('is known from the first step to the last, and no longer', async () => {
    let arrive = () => {}
    const far = () => new Promise<object>((done) => (arrive = () => done({ render: () => null })))
    const routes = [
      { path: '/here', component: { render: () => null } },
      { path: '/there', component: far },
    ]
    const router = createRouter({ history: createMemoryHistory(), routes })
    watchGoing(router)
    await router.push('/here')
    expect(going.elsewhere).toBe(false)
    const way = router.push('/there')
    await new Promise((r) => setTimeout(r, 10))
    expect(going.elsewhere).toBe(true)
    arrive()
    await way
    expect(going.elsewhere).toBe(false)
    await router.push('/there?bar=2')
    expect(going.elsewhere).toBe(false)
  })
})
