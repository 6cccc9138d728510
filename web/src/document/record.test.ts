import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, shallowRef, type EffectScope } from 'vue'
import { without } from './parts'
import { apply } from './steps'
import { useHistory } from './useHistory'
import { useRecord } from './useRecord'

interface Note {
  title: string
  text: string
}
let scope: EffectScope
beforeEach(() => {
  vi.useFakeTimers()
  scope = effectScope()
  vi.stubGlobal('document', new EventTarget())
  vi.stubGlobal('window', new EventTarget())
})
afterEach(() => {
  scope.stop()
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('the way back and forth', () => {
  const history = () => {
    const state = shallowRef<Note>()
    const h = scope.run(() => useHistory(state))!
    const put = (title: string, name: string, joins = false) => {
      const before = state.value!
      state.value = { title, text: '' }
      return h.record(name, before, state.value, joins)
    }
    state.value = { title: '', text: '' }
    h.begin()
    return { h, state, put }
  }

  it('has a name for every step, forth and back', () => {
    const { h, state, put } = history()
    put('a', 'one')
    put('b', 'two')
    expect([h.undoName.value, h.redoName.value]).toEqual(['two', ''])
    h.undo()
    expect([state.value!.title, h.undoName.value, h.redoName.value]).toEqual(['a', 'one', 'two'])
    h.undo()
    expect([h.canUndo.value, h.undoName.value, h.redoName.value]).toEqual([false, '', 'one'])
    h.redo()
    h.redo()
    expect([state.value!.title, h.canRedo.value]).toEqual(['b', false])
  })

  it('takes what is typed quickly as one step, and what comes later as another', () => {
    const { h, state, put } = history()
    for (const t of ['w', 'wo', 'wor']) put(t, 'title', true)
    expect(h.undoName.value).toBe('title')
    vi.advanceTimersByTime(2000)
    put('word', 'title', true)
    h.undo()
    expect([state.value!.title, h.undoName.value]).toEqual(['wor', 'title'])
    put('worn', 'title', true) // after going back it is a step of its own
    h.undo()
    expect(state.value!.title).toBe('wor')
    h.undo()
    expect([state.value!.title, h.canUndo.value]).toEqual(['', false])
  })

  it('forgets a step as if it had never been', () => {
    const { h, state, put } = history()
    h.forget(put('a', 'one'))
    expect([h.canRedo.value, h.canUndo.value]).toEqual([false, false])
    h.undo()
    expect(state.value!.title).toBe('a')
  })

  it('takes back mine and leaves theirs', () => {
    const { h, state, put } = history()
    put('mine', 'title')
    const theirs = [{ kind: 'set' as const, field: 'text', from: '', to: 'theirs' }]
    h.joined(theirs)
    state.value = apply(theirs, state.value!)
    h.undo()
    expect(state.value).toEqual({ title: '', text: 'theirs' })
    h.redo()
    expect(state.value).toEqual({ title: 'mine', text: 'theirs' })
    // What they changed too is theirs: there is nothing of mine left to take back.
    h.joined([{ kind: 'set', field: 'title', from: 'mine', to: 'theirs' }])
    expect(h.canUndo.value).toBe(false)
  })
})

describe('a record', () => {
  const opened = (how: { waits?: () => boolean | string; theirs?: Note } = {}) => {
    const saved: Note[] = []
    const keeps = {
      save: vi.fn(async (body: Note) => {
        saved.push(body)
        return how.theirs ? { kept: how.theirs, how: 'joined' as const } : { kept: body, how: 'sent' as const }
      }),
      saveLast: vi.fn(),
      rewind: vi.fn(),
      hold: vi.fn(() => Promise.resolve(true)),
    }
    const record = scope.run(() => useRecord<Note>({ keeps: () => keeps, part: (n) => n, waits: how.waits }))!
    record.open({ title: 'one', text: 'x' })
    return { record, keeps, saved }
  }

  it('is kept by itself, once, half a second after the last change', async () => {
    const { record, saved } = opened()
    for (const title of ['t', 'tw', 'two']) record.change('title', { title }, true)
    expect(record.state.value).toBe('saving')
    await vi.advanceTimersByTimeAsync(700)
    expect(saved).toEqual([{ title: 'two', text: 'x' }])
    expect(record.state.value).toBe('saved')
    record.undo()
    await vi.advanceTimersByTimeAsync(700)
    expect(saved.at(-1)!.title).toBe('one')
  })

  it('says why it cannot be kept, puts it by, and is kept when it can be', async () => {
    let why = 'bar 3 is empty'
    const { record, keeps, saved } = opened({ waits: () => why })
    record.change('chords', { text: '' })
    await vi.advanceTimersByTimeAsync(700)
    expect([record.state.value, record.why.value, saved.length]).toEqual(['unsaved', why, 0])
    expect(keeps.hold).toHaveBeenCalledWith({ title: 'one', text: '' })
    why = ''
    record.settled()
    await vi.advanceTimersByTimeAsync(700)
    expect([record.state.value, record.why.value, saved.length]).toEqual(['saved', '', 1])
  })

  it('joins what was changed elsewhere, unless the same was changed here', async () => {
    const how: { theirs?: Note } = { theirs: { title: 'mine', text: 'theirs' } }
    const { record, keeps } = opened(how)
    record.change('title', { title: 'mine' })
    const saving = record.now()
    record.change('title', { title: 'mine too' })
    await saving
    expect(record.body.value).toEqual({ title: 'mine too', text: 'theirs' })
    expect(keeps.rewind).not.toHaveBeenCalled()
    how.theirs = undefined
    await vi.advanceTimersByTimeAsync(700)
    expect(record.state.value).toBe('saved')
    how.theirs = { title: 'theirs', text: 'theirs' } // taken by the player
    record.change('text', { text: 'here' })
    const again = record.now()
    record.change('text', { text: 'here too' })
    await again
    expect(record.body.value!.text).toBe('here too')
    expect(keeps.rewind).toHaveBeenCalledOnce()
  })

  it('is sent as the page is left', async () => {
    const { record, keeps } = opened()
    record.change('title', { title: 'last words' })
    window.dispatchEvent(new Event('pagehide'))
    await nextTick()
    expect(keeps.saveLast).toHaveBeenCalledWith({ title: 'last words', text: 'x' })
  })
})

describe('a thing without some of its fields', () => {
  it('keeps every other, whatever it is called', () => {
    expect(without({ id: 1, version: 2, tuning: 'E', rests: 'strict' }, 'id', 'version')).toEqual({
      tuning: 'E',
      rests: 'strict',
    })
  })
})
