import { beforeEach, describe, expect, it, vi } from 'vitest'
import { pedalDeeds } from '../shell/pedals'
import { commands } from '../shell/commands'
import { Following, placeOf, silence, type Lead } from './lead'
import { newsBetween } from './useNewsBetween'
import { Wire, type DeedId, type Ears } from './wire'

/* A program whose clock stands elsewhere, behind a network that takes its time, and not the same there and back. */
class Line {
  readyState = 1
  onopen = () => {}
  onmessage: (e: { data: string }) => void = () => {}
  onclose = () => {}
  said: { ping?: number; do?: string }[] = []
  constructor(
    private readonly delays: () => [there: number, back: number],
    private readonly skew: number,
  ) {
    setTimeout(() => this.onopen(), 1)
  }
  send(text: string) {
    const m = JSON.parse(text) as { ping?: number }
    this.said.push(m)
    if (m.ping === undefined) return
    const [there, back] = this.delays()
    setTimeout(() => {
      const at = performance.now() + this.skew
      setTimeout(() => this.onmessage({ data: JSON.stringify({ pong: m.ping, at }) }), back)
    }, there)
  }
  close() {
    this.readyState = 3
    this.onclose()
  }
}

function wired(delays: () => [number, number], skew = 123456, ears: Ears = {}) {
  const lines: Line[] = []
  const wire = new Wire(ears, () => {
    const line = new Line(delays, skew)
    lines.push(line)
    return line as unknown as WebSocket
  })
  return { wire, lines }
}

beforeEach(() => void vi.useFakeTimers())

describe('clocks over a network', () => {
  it('are known to half of what the quickest answer took longer one way than the other', async () => {
    let turn = 0
    const spikes: [number, number][] = [[5, 5], [80, 5], [7, 9], [200, 40], [6, 5], [5, 120], [30, 30], [90, 90]] // prettier-ignore
    const { wire } = wired(() => spikes[turn++ % spikes.length]!)
    expect(wire.known).toBe(false)
    await vi.advanceTimersByTimeAsync(2000)
    expect(wire.known).toBe(true)
    expect(Math.abs(wire.there(performance.now()) - (performance.now() + 123456))).toBeLessThan(3)
    expect(wire.here(wire.there(1000))).toBeCloseTo(1000, 6)
    wire.close()
  })
  it('are compared anew when the line broke, which is tried again, longer and longer, and not for good', async () => {
    const there: boolean[] = []
    const { wire, lines } = wired(() => [1, 1], 0, { there: (now) => there.push(now) })
    await vi.advanceTimersByTimeAsync(1000)
    expect(there).toEqual([true])
    lines[0]!.close()
    expect(wire.known).toBe(false)
    await vi.advanceTimersByTimeAsync(1500)
    expect([lines.length, there]).toEqual([2, [true, false, true]])
    wire.wake()
    await vi.advanceTimersByTimeAsync(1500)
    expect([lines.length, wire.known]).toEqual([3, true])
    wire.close()
    await vi.advanceTimersByTimeAsync(60000)
    expect(lines.length).toBe(3)
  })
  it('say nothing where nobody listens', async () => {
    const { wire, lines } = wired(() => [1, 1])
    lines[0]!.readyState = 0
    wire.say({ do: 'play' })
    expect(lines[0]!.said).toEqual([])
    wire.close()
  })
})

describe('the clock of a band elsewhere', () => {
  let now = 0
  const clock = new Following(() => now)
  it('goes on from what was told, comes round a loop, and takes the newest that is due', () => {
    now = 1000
    expect(clock.position(0)).toBeUndefined()
    clock.tell([{ tick: -1920, at: 1000, perMs: 0.8 }])
    for (const [at, tick] of [
      [1000, -1920],
      [3400, 0],
      [4000, 480],
      [900, -2000],
    ] as const) {
      // prettier-ignore
      now = at
      expect(clock.position(0)?.tick).toBeCloseTo(tick, 6)
    }
    const loop = { from: 1920, to: 3840 }
    clock.tell([
      { tick: 1920, at: 5000, perMs: 1, loop },
      { tick: 1920, at: 12000, perMs: 2, loop },
    ])
    for (const [at, tick] of [
      [6000, 2920],
      [6919, 3839],
      [6921, 1921],
      [8841, 1921],
      [12500, 2920],
    ] as const) {
      // prettier-ignore
      now = at
      expect(clock.position(0)?.tick).toBeCloseTo(tick, 6)
    }
    now = 12000
    expect(clock.position(0.25)?.tick).toBeCloseTo(2420, 6)
  })
  it('is old when nothing comes any more', () => {
    now = 50000
    clock.tell([])
    expect(clock.fresh).toBe(true)
    now += silence
    expect(clock.fresh).toBe(false)
  })
})

describe('where a device looks', () => {
  const of = (path: string, more: Partial<Lead> = {}) => placeOf({ path, playing: false, ...more }, 'stand')
  it('is the stand or the sheet of a chart, a line, a call, and what plays', () => {
    expect(of('/bench/6?frets=7-11&bar=4&tempo=90')).toBe('/stand/6?frets=7-11&bar=4')
    expect(of('/stand/6')).toBe('/stand/6')
    expect(placeOf({ path: '/bench/6?on=1.2', playing: true }, 'sheet')).toBe('/bench/6?on=1.2')
    expect(of('/lines/3?tab=landings')).toBe('/lines/3')
    expect(of('/paper/6?frets=7-11')).toBe('/paper/6')
    expect(of('/licks/40')).toBe('/licks/40')
    expect(of('/practice/6?ask=tones', { shown: { big: 'G7', words: '', spoken: '' } })).toBe('/call')
    expect(of('/practice/6?do=changes', { chart: 6 })).toBe('/stand/6')
    expect(of('/sets/1', { chart: 4, playing: true })).toBe('/stand/4')
    for (const path of ['/charts', '/sets/1', '/lines', '/lines/new', '/licks?tag=trill', '/by-ear/2', '/nowhere'])
      expect(of(path, { chart: 4 }), path).toBeUndefined()
  })
})

describe('what is kept', () => {
  it('is told on once, and never goes round', () => {
    const said: unknown[] = []
    const posted: unknown[] = []
    const channel = { onmessage: null, postMessage: (m: unknown) => void posted.push(m) } as unknown as BroadcastChannel
    const brought = newsBetween(channel, () => ({ say: (m) => void said.push(m) }))
    const news = (n: number) => ({ path: '/api/lines/3', version: `a.1.${n}` })
    const here = (n: number) => channel.onmessage!({ data: news(n) } as MessageEvent)
    here(1)
    here(1)
    expect(said).toEqual([{ news: news(1) }])
    brought(news(1)) // it was mine
    brought(news(2))
    here(2) // another tab brought it too
    expect(posted).toEqual([news(2)])
    expect(said.length).toBe(1)
    channel.onmessage!({ data: undefined } as MessageEvent)
    expect(said.length).toBe(1)
  })
})

describe('what a device may ask for', () => {
  it('is a deed of a pedal, and each leads to commands that there are', () => {
    const deeds: DeedId[] = ['play', 'next', 'back', 'loop', 'again', 'slower', 'faster', 'show', 'keep']
    for (const deed of deeds.slice(1)) {
      const pedal = pedalDeeds.find((d) => d.id === deed)
      expect(pedal?.commands.length, deed).toBeGreaterThan(0)
      for (const id of pedal!.commands) expect(commands[id], id).toBeTruthy()
    }
  })
})
