/* The screen stays on while the band plays, and not a moment longer. */
import { afterEach, expect, test, vi } from 'vitest'
import { effectScope, nextTick, ref } from 'vue'
import { useScreenAwake } from './useScreenAwake'

const locks: { released: boolean; lose: () => void }[] = []
function lockable(fails = false) {
  vi.stubGlobal('navigator', {
    wakeLock: {
      request: async () => {
        if (fails) throw new Error('not now')
        const lost: (() => void)[] = []
        const lock = { released: false, lose: () => lost.forEach((l) => l()), release: async () => void (lock.released = true), addEventListener: (_: string, l: () => void) => void lost.push(l) } // prettier-ignore
        locks.push(lock)
        return lock
      },
    },
  })
}
let seen: 'visible' | 'hidden' = 'visible'
const looks: (() => void)[] = []
vi.stubGlobal('document', {
  get visibilityState() {
    return seen
  },
  addEventListener: (_: string, l: () => void) => void looks.push(l),
  removeEventListener: (_: string, l: () => void) => void looks.splice(looks.indexOf(l), 1),
})
afterEach(() => {
  locks.length = 0
  seen = 'visible'
})
const soon = async () => {
  await nextTick()
  await new Promise((r) => setTimeout(r, 5))
}

test('held while it plays, let go when it stops, taken again after the page was away', async () => {
  lockable()
  const playing = ref(false)
  const scope = effectScope()
  scope.run(() => useScreenAwake(() => playing.value))
  await soon()
  expect(locks).toHaveLength(0)
  playing.value = true
  await soon()
  expect(locks.map((l) => l.released)).toEqual([false])
  seen = 'hidden'
  locks[0]!.lose()
  for (const l of looks) l()
  await soon()
  expect(locks).toHaveLength(1)
  seen = 'visible'
  for (const l of looks) l()
  await soon()
  expect(locks).toHaveLength(2)
  playing.value = false
  await soon()
  expect(locks[1]!.released).toBe(true)
  playing.value = true
  playing.value = false // before it was given
  await soon()
  expect(locks.slice(2).every((l) => l.released)).toBe(true)
  scope.stop()
  expect(looks).toHaveLength(0)
})

test('where it cannot be had nothing happens', async () => {
  lockable(true)
  const scope = effectScope()
  scope.run(() => useScreenAwake(() => true))
  await soon()
  vi.stubGlobal('navigator', {})
  scope.run(() => useScreenAwake(() => true))
  await soon()
  expect(locks).toHaveLength(0)
  scope.stop()
})
