import { expect, it } from 'vitest'
import { wasAt } from './was'

it('tells an address of this machine, and nothing else', () => {
  expect(['#was=127.0.0.1:4760', '#was=localhost:80', '#was=[::1]:4760'].map(wasAt)).toEqual([
    '127.0.0.1:4760',
    'localhost:80',
    '[::1]:4760',
  ])
  for (const other of [
    '',
    '#',
    '#was=',
    '#was=10.0.0.1:80',
    '#was=127.0.0.1',
    '#was=127.0.0.1:4760/x',
    '#was=a.b:1',
    'was=127.0.0.1:1',
  ])
    expect(wasAt(other), other).toBeUndefined()
})
