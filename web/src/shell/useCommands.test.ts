// @vitest-environment happy-dom
import { describe, expect, it, vi } from 'vitest'
import { effectScope, ref } from 'vue'
import { commandItem, throughHistory, useCommand, useCommands } from './useCommands'

describe('a command', () => {
  const inScope = <T>(what: () => T) => {
    const scope = effectScope()
    return { made: scope.run(what)!, stop: () => scope.stop() }
  }
  const strike = (key: string, how: KeyboardEventInit = {}) => {
    const e = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...how })
    document.body.dispatchEvent(e)
    return e.defaultPrevented
  }

  it('is one thing for its button, its key and its line in a menu, and is pale where it cannot be done', () => {
    const [can, times] = [ref(false), ref(0)]
    const { made: button, stop } = inScope(() => {
      useCommands({ keep: { do: () => void times.value++, can: () => can.value, name: () => `keep ${times.value}` } })
      return useCommand('keep')
    })
    expect([button.value.disabled, commandItem('keep').disabled, strike('k')]).toEqual([true, true, false])
    can.value = true
    expect([button.value.disabled, commandItem('keep').disabled]).toEqual([false, false])
    button.value.onClick(new Event('click'))
    ;(commandItem('keep').command as () => void)()
    expect([strike('k'), times.value]).toEqual([true, 3])
    expect([button.value.title, commandItem('keep').label]).toEqual(['keep 3 (K)', 'keep 3'])
    stop()
    expect([strike('k'), commandItem('keep').disabled, times.value]).toEqual([false, true, 3])
  })

  it('is done by the place that was opened last, and by the one under it where that one cannot', () => {
    const done: string[] = []
    const can = ref(true)
    const under = inScope(() => useCommands({ again: () => done.push('under') }))
    const over = inScope(() => useCommands({ again: { do: () => done.push('over'), can: () => can.value } }))
    strike('r')
    can.value = false
    strike('r')
    over.stop()
    strike('r')
    under.stop()
    strike('r')
    expect(done).toEqual(['over', 'under', 'under'])
  })

  it('goes back and forth through a history by the names of its steps', () => {
    const history = {
      undo: vi.fn(),
      redo: vi.fn(),
      canUndo: ref(true),
      canRedo: ref(false),
      undoName: ref('insert'),
      redoName: ref(''),
    }
    const { made, stop } = inScope(() => {
      useCommands(throughHistory(history))
      return [useCommand('undo'), useCommand('redo')] as const
    })
    const [undo, redo] = made
    expect([undo.value.title, undo.value.disabled, redo.value.title, redo.value.disabled]).toEqual(['undo insert (Ctrl Z)', false, 'redo (Ctrl Y)', true]) // prettier-ignore
    expect([strike('z', { ctrlKey: true }), strike('y', { ctrlKey: true })]).toEqual([true, false])
    expect([history.undo.mock.calls.length, history.redo.mock.calls.length]).toEqual([1, 0])
    stop()
  })
})
