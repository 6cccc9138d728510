import { effectScope, nextTick, shallowRef } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { againSoon, onceDrawn, useOpener } from './later'

const press = (currentTarget: unknown) => ({ type: 'click', currentTarget }) as unknown as Event

describe('a part that opens beside what was pressed', () => {
  function opening() {
    const opened: unknown[] = []
    const part = shallowRef<{ toggle: (e: Event, target?: unknown) => void }>()
    const scope = effectScope()
    const open = scope.run(() => useOpener(part))!
    const come = async () => {
      part.value = { toggle: (e, target) => opened.push([e.currentTarget, target]) }
      await nextTick()
      await nextTick()
    }
    return { opened, open, come, scope }
  }

  it('opens at once where it is there', async () => {
    const { opened, open, come } = opening()
    await come()
    open(press('button'))
    expect(opened).toEqual([['button', 'button']])
  })

  it('opens when it has come, once, beside what was pressed last', async () => {
    const { opened, open, come } = opening()
    open(press('first'))
    open(press('second'))
    expect(opened).toEqual([])
    await come()
    expect(opened).toEqual([['second', 'second']])
    await come()
    expect(opened).toHaveLength(1)
  })

  it('does not open in a place that was left', async () => {
    const { opened, open, come, scope } = opening()
    open(press('button'))
    scope.stop()
    await come()
    expect(opened).toEqual([])
  })
})

describe('what comes after the first drawing', () => {
  let drawn = false
  let window: EventTarget
  beforeEach(() => {
    vi.useFakeTimers()
    drawn = false
    vi.stubGlobal('window', (window = new EventTarget()))
    vi.stubGlobal('document', { querySelector: () => (drawn ? {} : null) })
  })
  afterEach(() => {
    vi.useRealTimers()
    vi.unstubAllGlobals()
  })

  it('begins once, in an idle moment after it', () => {
    let idle = () => {}
    vi.stubGlobal('requestIdleCallback', (then: () => void) => (idle = then))
    const go = vi.fn()
    onceDrawn('main', go)
    vi.advanceTimersByTime(200)
    expect(go).not.toHaveBeenCalled()
    drawn = true
    vi.advanceTimersByTime(40)
    idle()
    expect(go).toHaveBeenCalledTimes(1)
    vi.advanceTimersByTime(10_000)
    window.dispatchEvent(new Event('keydown'))
    expect(go).toHaveBeenCalledTimes(1)
  })

  it('does not wait for a browser that is never idle, nor for a drawing that does not come', () => {
    vi.stubGlobal('requestIdleCallback', () => 0)
    const drawing = vi.fn()
    drawn = true
    onceDrawn('main', drawing)
    vi.advanceTimersByTime(700)
    expect(drawing).toHaveBeenCalledTimes(1)
    const none = vi.fn()
    drawn = false
    onceDrawn('main', none)
    vi.advanceTimersByTime(4000)
    expect(none).toHaveBeenCalledTimes(1)
  })

  it('does not keep waiting who presses something', () => {
    vi.stubGlobal('requestIdleCallback', () => 0)
    for (const press of ['pointerdown', 'keydown']) {
      const go = vi.fn()
      onceDrawn('main', go)
      window.dispatchEvent(new Event(press))
      expect(go).toHaveBeenCalledTimes(1)
      vi.advanceTimersByTime(10_000)
      expect(go).toHaveBeenCalledTimes(1)
    }
  })

  it('is asked for again where it did not arrive, and given up in the end', () => {
    const again = vi.fn()
    const giveUp = vi.fn()
    for (let tries = 1; tries <= 6; tries++) againSoon(new Error(), again, giveUp, tries)
    vi.advanceTimersByTime(20_000)
    expect([again.mock.calls.length, giveUp.mock.calls.length]).toEqual([6, 0])
    againSoon(new Error(), again, giveUp, 7)
    expect(giveUp).toHaveBeenCalledTimes(1)
  })
})
