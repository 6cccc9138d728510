import { describe, expect, it } from 'vitest'
import { useBarDrag } from './useBarDrag'

/* A bar is ten pixels wide. */
const at = (clientX: number, button = 0) => ({ clientX, button }) as PointerEvent
const click = () => {
  let stopped = false
  return { event: { stopPropagation: () => (stopped = true) } as unknown as MouseEvent, stopped: () => stopped }
}
function sheet() {
  const loops: [number, number][] = []
  const drag = useBarDrag(
    (e) => (e.clientX < 0 ? undefined : Math.floor(e.clientX / 10)),
    (a, b) => loops.push([a, b]),
  )
  return { loops, ...drag }
}

describe('bars that are drawn over', () => {
  it('go round, either way, also back to where it began', () => {
    for (const [path, want] of [
      [
        [12, 25, 44],
        [1, 4],
      ],
      [
        [44, 12],
        [1, 4],
      ],
      [
        [12, 33, 14],
        [1, 1],
      ],
      [
        [12, -5, 22],
        [1, 2],
      ],
    ] as const) {
      const s = sheet()
      s.start(at(path[0]))
      for (const x of path.slice(1)) s.move(at(x))
      s.end()
      expect(s.loops).toEqual([want])
      const c = click()
      s.click(c.event)
      expect(c.stopped()).toBe(true)
    }
  })

  it('are none where nothing was drawn over: within a bar, by another button, beside them, or given up', () => {
    for (const path of [[at(12), at(18)], [at(12, 2), at(40)], [at(-3), at(40)], [at(12)]]) {
      const s = sheet()
      s.start(path[0]!)
      for (const e of path.slice(1)) s.move(e)
      s.end()
      expect(s.loops).toEqual([])
      const c = click()
      s.click(c.event)
      expect(c.stopped()).toBe(false)
    }
    const s = sheet()
    s.start(at(12))
    s.move(at(40))
    s.cancel()
    s.end()
    expect(s.loops).toEqual([])
  })
})
