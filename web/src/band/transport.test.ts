import { beforeEach, describe, expect, it } from 'vitest'
import { Transport, type Anchor, type Score, type SoundEvent } from './transport'

/* A second is 48,000 frames; at 60 beats a minute a beat is a second, and a bar of four 192,000 frames. */
const rate = 48_000
const beat = 960
const block = 128

/** A note on every beat of some bars, named by its beat. */
const beats = (bars: number, countIn = 0): Score => ({
  events: Array.from({ length: (bars + countIn) * 4 }, (_, i) => i - countIn * 4).flatMap((b) => [
    { at: b * beat, track: 0, data: [0x90, ((b % 100) + 100) % 100, 90] },
    { at: b * beat + 480, track: 0, data: [0x80, ((b % 100) + 100) % 100, 64] },
  ]),
  end: bars * 4 * beat,
  countIn: countIn * 4 * beat,
  metres: [{ at: -countIn * 4 * beat, bar: 4 * beat }],
  beat,
})

let heard: { frame: number; note: number }[]
let offs: number
let anchors: Anchor[]
let transport: Transport
let now: number
let over: number

beforeEach(() => {
  heard = []
  offs = 0
  anchors = []
  now = over = 0
  transport = new Transport(
    rate,
    (e: SoundEvent) => {
      if ((e.data[0]! & 0xf0) === 0x90) heard.push({ frame: now + inside, note: e.data[1]! })
      else if ((e.data[0]! & 0xf0) === 0x80) offs++
    },
    (a) => anchors.push(a),
    () => over++,
  )
})

let inside = 0
/** Runs for some seconds, as the worklet does, and keeps where each note began. */
function run(seconds: number, each?: (frame: number) => void) {
  const end = now + seconds * rate
  while (now < end) {
    inside = 0
    const done = transport.run(now, block, (from, count) => (inside = from + count))
    now += done
    each?.(now)
  }
}
const notes = () => heard.map((h) => h.note)

describe('the band’s clock', () => {
  it('brings the count-in along where a pickup leads to the top, and only there', () => {
    transport.load({ ...beats(2, 1), pickup: beat }, 0)
    transport.start(0, 0, 60, undefined, 'none')
    run(6)
    expect(notes().slice(0, 6)).toEqual([96, 97, 98, 99, 0, 1])
    heard = []
    transport.start(now, 4 * beat, 60, undefined, 'none')
    run(2)
    expect(notes()[0]).toBe(4)
  })

  it('counts two bars, or lets the pickup begin by itself without sticks', () => {
    const [sticks, band] = [0, 1]
    const plain = beats(2, 2) // the first of two bars before the top is the further one
    const score = { ...plain, countIn: 4 * beat, before: 4 * beat, sticks }
    transport.load(score, 0)
    transport.start(0, 0, 60, undefined, 'two')
    run(10)
    expect(notes().slice(0, 10)).toEqual([92, 93, 94, 95, 96, 97, 98, 99, 0, 1])
    heard = []
    transport.start(now, 0, 60, undefined, 'bar')
    run(6)
    expect(notes().slice(0, 6)).toEqual([96, 97, 98, 99, 0, 1])
    // Sticks and band on tracks of their own.
    const own = { ...score, events: score.events.map((e) => (e.at < 0 ? e : { ...e, track: band })) }
    const lead = { at: -beat, track: band, data: [0x90, 55, 90] }
    transport.load({ ...own, events: [...own.events, lead].sort((a, b) => a.at - b.at), pickup: beat }, now)
    heard = []
    transport.start(now, 0, 60, undefined, 'pickup')
    run(3)
    expect(notes().slice(0, 3)).toEqual([55, 0, 1])
    heard = []
    transport.start(now, 4 * beat, 60, undefined, 'pickup')
    run(2)
    expect(notes()[0], 'elsewhere there is none').toBe(4)
  })

  it('plays a pickup before the top alone: who is counted in to another bar hears the sticks', () => {
    const [sticks, band] = [0, 1]
    const plain = beats(2, 1)
    const lead = { at: -beat, track: band, data: [0x90, 55, 90] }
    const score = { ...plain, events: [...plain.events, lead].sort((a, b) => a.at - b.at), pickup: beat, sticks }
    transport.load(score, 0)
    transport.start(0, 0, 60, undefined, 'bar')
    run(5)
    expect(notes().slice(0, 6)).toEqual([96, 97, 98, 99, 55, 0])
    for (const loop of [undefined, { from: 4 * beat, to: 8 * beat }]) {
      heard = []
      transport.start(now, 4 * beat, 60, loop, 'bar')
      run(5)
      expect(notes().slice(0, 5)).toEqual([96, 97, 98, 99, 4])
    }
    heard = []
    transport.start(now, 0, 60, undefined, 'none')
    run(20)
    expect(
      notes().filter((n) => n === 55),
      'once, and not with each chorus',
    ).toHaveLength(1)
  })

  it('leads in to the top, and only there: elsewhere it is counted in and no more', () => {
    const led = { ...beats(2, 2), intro: 4 * beat }
    transport.load(led, 0)
    transport.start(0, 0, 60, undefined, 'none')
    run(6)
    expect(notes().slice(0, 6), 'the intro alone').toEqual([96, 97, 98, 99, 0, 1])
    heard = []
    transport.start(now, 0, 60, undefined, 'bar')
    run(10)
    expect(notes().slice(0, 10), 'sticks and intro').toEqual([92, 93, 94, 95, 96, 97, 98, 99, 0, 1])
    heard = []
    transport.start(now, 4 * beat, 60, undefined, 'bar')
    run(6)
    expect(notes().slice(0, 6), 'sticks, then where it was asked for').toEqual([92, 93, 94, 95, 4, 5])
    heard = []
    transport.start(now, 4 * beat, 60, undefined, 'none')
    run(2)
    expect(notes()[0]).toBe(4)
  })

  it('is over at the end of what is the last, out of a loop too, and goes round again the next time', () => {
    transport.load(beats(2), 0)
    transport.start(0, 0, 60, { from: 0, to: 4 * beat }, 'none')
    run(6.5)
    transport.load(beats(3), now) // with an ending
    transport.last()
    run(20)
    expect(notes()).toEqual([0, 1, 2, 3, 0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11])
    expect([over, transport.playing]).toEqual([1, false])
    heard = []
    transport.start(now, 0, 60, undefined, 'none')
    run(13.5)
    expect(notes().slice(11)).toEqual([11, 0, 1])
    expect(over).toBe(1)
  })

  it('plays every event on its frame and comes round', () => {
    transport.load(beats(2), 0)
    transport.start(0, 0, 60, undefined, 'none')
    run(10)
    expect(notes().slice(0, 10)).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 0, 1])
    heard.forEach((h, i) => expect(h.frame).toBe(i * rate))
    expect(anchors.at(-1)).toMatchObject({ tick: 0, pass: 1 })
  })

  it('counts in before a loop and not again', () => {
    transport.load(beats(4, 1), 0)
    transport.start(0, 0, 60, { from: 4 * beat, to: 8 * beat }, 'bar')
    run(13)
    expect(notes()).toEqual([96, 97, 98, 99, 4, 5, 6, 7, 4, 5, 6, 7, 4])
  })

  it('gives every pass of a loop the same number of frames, at any tempo', () => {
    transport.load(beats(4), 0)
    transport.start(0, 0, 97, { from: 0, to: 4 * beat }, 'none')
    run(20)
    const starts = heard.filter((h) => h.note === 0).map((h) => h.frame)
    const lengths = new Set(starts.slice(1).map((s, i) => s - starts[i]!))
    expect(starts.length).toBeGreaterThan(5)
    expect(lengths.size).toBe(1)
  })

  it('lets the old loop end before a new one begins', () => {
    transport.load(beats(4), 0)
    transport.start(0, 0, 60, { from: 0, to: 4 * beat }, 'none')
    run(1.5)
    transport.setLoop({ from: 8 * beat, to: 12 * beat }, now)
    run(5)
    expect(notes()).toEqual([0, 1, 2, 3, 8, 9, 10])
  })

  it('goes to a place when the bar is over', () => {
    transport.load(beats(4), 0)
    transport.start(0, 0, 60, undefined, 'none')
    run(1.2)
    transport.goTo(12 * beat, now)
    run(4)
    expect(notes()).toEqual([0, 1, 2, 3, 12, 13])
  })

  it('climbs the ladder after its passes and stops at the goal', () => {
    transport.load(beats(1), 0)
    transport.setLadder({ goal: 130, step: 30, passes: 2 })
    transport.start(0, 0, 60, undefined, 'none')
    run(40)
    expect([...new Set(anchors.map((a) => a.tempo))]).toEqual([60, 90, 120, 130])
  })

  it('descends a ladder that leads down', () => {
    transport.load(beats(1), 0)
    transport.setLadder({ goal: 80, step: -20, passes: 1 })
    transport.start(0, 0, 120, undefined, 'none')
    run(20)
    expect([...new Set(anchors.map((a) => a.tempo))]).toEqual([120, 100, 80])
  })

  it('plays every second pass on the other side of a loop', () => {
    transport.load(beats(4), 0) // two choruses of two bars
    transport.start(0, 0, 60, { from: 0, to: 4 * beat, other: 8 * beat }, 'none')
    run(13)
    expect(notes()).toEqual([0, 1, 2, 3, 8, 9, 10, 11, 0, 1, 2, 3, 8])
  })

  it('keeps its place when the tempo changes', () => {
    transport.load(beats(4), 0)
    transport.start(0, 0, 60, undefined, 'none')
    run(2)
    transport.setTempo(120, now)
    expect(transport.tickAt(now)).toBeCloseTo(2 * beat, 0)
    run(2)
    expect(notes()).toEqual([0, 1, 2, 3, 4, 5])
  })

  it('replaces a score where it stands, and leaves nothing hanging', () => {
    transport.load(beats(2), 0)
    transport.start(0, 0, 60, undefined, 'none')
    run(1.1)
    const sounding = heard.length - offs
    expect(sounding).toBe(1)
    transport.load(beats(3), now)
    expect(heard.length - offs).toBe(0)
    run(1)
    expect(notes()).toEqual([0, 1, 2])
    transport.stop()
    expect(heard.length - offs).toBe(0)
    run(2)
    expect(notes()).toEqual([0, 1, 2])
  })

  it('ends its blocks where they began in every pass', () => {
    transport.load(beats(1), 0)
    transport.start(0, 0, 97, undefined, 'none')
    const cuts: number[][] = [[]]
    let passes = 0
    let begun = 0
    run(10, (frame) => {
      const a = anchors.at(-1)!
      if (a.pass !== passes) {
        passes = a.pass
        begun = a.frame
        cuts.push([])
      }
      cuts.at(-1)!.push(frame - begun)
    })
    expect(cuts.length).toBeGreaterThan(3)
    expect(cuts[2]!.slice(0, 400)).toEqual(cuts[1]!.slice(0, 400))
  })
})
