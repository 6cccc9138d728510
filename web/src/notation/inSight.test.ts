import { effectScope } from 'vue'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { useInSight } from './useInSight'

class Watched {
  static last: Watched
  elements = new Set<Element>()
  constructor(private tell: (entries: { target: Element; isIntersecting: boolean }[]) => void) {
    Watched.last = this
  }
  observe = (el: Element) => this.elements.add(el)
  unobserve = (el: Element) => this.elements.delete(el)
  disconnect = () => this.elements.clear()
  see = (target: Element, isIntersecting: boolean) => this.tell([{ target, isIntersecting }])
}
const paper = new EventTarget()
const element = () => ({}) as Element

describe('lines of music in sight', () => {
  afterEach(() => vi.unstubAllGlobals())
  function watching(can = true) {
    vi.stubGlobal('IntersectionObserver', can ? Watched : undefined)
    vi.stubGlobal('window', paper)
    const scope = effectScope()
    return { scope, sight: scope.run(() => useInSight())! }
  }

  it('are there, and those that went out of it are not', () => {
    const { sight } = watching()
    const [a, b] = [element(), element()]
    sight.watch(0, a)
    sight.watch(1, b)
    sight.watch(1, b) // at the next patch
    expect([Watched.last.elements.size, sight.has(0), sight.has(1), sight.at(1) === b]).toEqual([2, false, false, true])
    Watched.last.see(b, true)
    expect([sight.has(0), sight.has(1)]).toEqual([false, true])
    Watched.last.see(a, true)
    Watched.last.see(b, false)
    expect([sight.has(0), sight.has(1)]).toEqual([true, false])
  })

  it('that are no more are not watched, and what takes their number is', () => {
    const { sight, scope } = watching()
    const [a, b] = [element(), element()]
    sight.watch(0, a)
    Watched.last.see(a, true)
    sight.watch(0, null)
    expect([sight.has(0), Watched.last.elements.size]).toEqual([false, 0])
    sight.watch(0, b)
    Watched.last.see(b, true)
    expect(sight.has(0)).toBe(true)
    scope.stop()
    expect(Watched.last.elements.size).toBe(0)
  })

  it('are all there on paper, and where a browser cannot tell', () => {
    const { sight } = watching()
    paper.dispatchEvent(new Event('beforeprint'))
    expect(sight.has(7)).toBe(true)
    paper.dispatchEvent(new Event('afterprint'))
    expect(sight.has(7)).toBe(false)
    expect(watching(false).sight.has(7)).toBe(true)
  })
})
