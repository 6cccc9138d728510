import ToastEventBus from 'primevue/toasteventbus'
import { expect, it } from 'vitest'
import { tellKept } from './toastsKept'

it('keeps what is told before anybody shows it, tells it once, and is out of the way then', () => {
  const told: unknown[] = []
  ToastEventBus.emit('add', 'first')
  ToastEventBus.emit('add', 'second')
  ToastEventBus.on('add', (m: unknown) => void told.push(m))
  expect(told).toEqual([])
  tellKept()
  expect(told).toEqual(['first', 'second'])
  ToastEventBus.emit('add', 'third')
  tellKept()
  expect(told).toEqual(['first', 'second', 'third'])
})
