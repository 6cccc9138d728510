import { expect, it } from 'vitest'
import { players } from '../band/messages'
import { soundEvents } from './sounding'

const track = players.indexOf('player')
it('a note is bent to its pitch, struck, and let go just before its end', () => {
  expect(soundEvents([{ at: 960, length: 480, pitch: 60 }])).toEqual([
    { at: 960, track, data: [0xe0, 0, 64] },
    { at: 960, track, data: [0x90, 60, 100] },
    { at: 1439, track, data: [0x80, 60, 64] },
  ])
})
it('further on by so many ticks; one that nobody let go lasts 400', () => {
  expect(soundEvents([{ at: 0, length: 0, pitch: 60 }], 100).map((e) => e.at)).toEqual([100, 100, 499])
})
it('what is between two notes is bent by the wheel, whose middle is 8192 and whose reach two half steps', () => {
  const wheel = (pitch: number) => {
    const [low, high] = soundEvents([{ at: 0, length: 480, pitch }])[0]!.data.slice(1)
    return (high! << 7) | low!
  }
  expect([60, 60.25, 59.75, 60.49].map(wheel)).toEqual([8192, 9216, 7168, 10199])
})
it('vibrato sways up and back, every 24 ticks, until the note is over', () => {
  const events = soundEvents([{ at: 0, length: 480, pitch: 60, sway: 0.5 }])
  const bends = events.filter((e) => e.data[0] === 0xe0)
  expect(bends.slice(1).map((e) => e.at)).toEqual(Array.from({ length: 17 }, (_, i) => 75 + 24 * i))
  const by = bends.map((e) => (((e.data[2]! << 7) | e.data[1]!) - 8192) / 4096)
  expect(Math.min(...by)).toBeGreaterThanOrEqual(0)
  expect(Math.max(...by)).toBeGreaterThan(0.49)
  expect(Math.max(...by)).toBeLessThanOrEqual(0.5)
})
