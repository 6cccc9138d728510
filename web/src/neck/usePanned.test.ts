import { describe, expect, it } from 'vitest'
import { nextTick, ref } from 'vue'
import { dice } from '../document/dice'
import { usePanned } from './usePanned'

const finger = (pointerId: number, clientX: number, pointerType = 'touch') => ({ pointerId, clientX, pointerType }) as PointerEvent // prettier-ignore

function neck(left = false, last = 22) {
  const home = ref(0)
  const of = { from: 6, to: 13, width: 400 }
  const panned = usePanned(
    () => ({ ...of, ...panned.view.value }),
    () => last,
    () => left,
    () => home.value,
  )
  return { home, ...panned }
}

describe('a neck under fingers', () => {
  it('goes along with one, the other way on a left-handed neck, and is no press then', () => {
    for (const [left, from] of [
      [false, 4],
      [true, 8],
    ] as const) {
      const n = neck(left)
      n.down(finger(1, 100))
      n.move(finger(1, 104))
      expect(n.drawn()).toBe(false)
      n.move(finger(1, 214)) // two frets of 57 pixels
      expect(n.view.value).toEqual({ from, to: from + 7 })
      n.up(finger(1, 214))
      expect(n.drawn()).toBe(true)
      n.down(finger(1, 100))
      expect(n.drawn()).toBe(false)
    }
  })

  it('spreads under two, and goes back to the hand when that goes elsewhere', async () => {
    const n = neck()
    n.down(finger(1, 170))
    n.down(finger(2, 230))
    n.move(finger(1, 140))
    n.move(finger(2, 260))
    expect(n.view.value!.to - n.view.value!.from).toBe(4)
    n.home.value++
    await nextTick()
    expect(n.view.value).toBeUndefined()
  })

  it('stays on the neck whatever fingers do, and is not moved by a mouse', () => {
    const d = dice(43)
    for (let i = 0; i < 300; i++) {
      const n = neck(d.next() < 0.5, 12 + d.n(15))
      const count = 1 + d.n(3)
      const last = 12 + 15
      for (let k = 0; k < count; k++) n.down(finger(k, d.n(400)))
      for (let k = 0; k < 12; k++) n.move(finger(d.n(count), d.n(1200) - 400))
      const v = n.view.value
      if (v) {
        expect(v.from).toBeGreaterThanOrEqual(0)
        expect(v.to).toBeLessThanOrEqual(last)
        expect(v.to - v.from).toBeGreaterThanOrEqual(4)
      }
      for (let k = 0; k < count; k++) n.up(finger(k, 0))
    }
    const n = neck()
    n.down(finger(1, 100, 'mouse'))
    n.move(finger(1, 300, 'mouse'))
    expect(n.view.value).toBeUndefined()
  })
})
