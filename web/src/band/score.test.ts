import { describe, expect, it } from 'vitest'
import { players } from './messages'
import { lasts, readScore, sounded } from './score'

/* A Standard MIDI File by hand, as the specification has it: 960 ticks to the quarter. */
type Event = [delta: number, ...data: number[]]
const number = (n: number, bytes: number) =>
  Array.from({ length: bytes }, (_, i) => (n >> (8 * (bytes - 1 - i))) & 0xff)
const varied = (n: number): number[] => (n < 128 ? [n] : [...varied(n >> 7).map((b) => b | 128), n & 127])
const letters = (text: string) => [...text].map((c) => c.charCodeAt(0))
const track = (name: string, events: Event[], end = 0) => {
  const data = [
    ...[0, 0xff, 3, name.length, ...letters(name)],
    ...events.flatMap(([delta, ...bytes]) => [...varied(delta), ...bytes]),
    ...[...varied(end), 0xff, 0x2f, 0],
  ]
  return [...letters('MTrk'), ...number(data.length, 4), ...data]
}
const file = (...tracks: number[][]) =>
  new Uint8Array([...letters('MThd'), ...number(6, 4), 0, 1, ...number(tracks.length, 2), ...number(960, 2), ...tracks.flat()]).buffer // prettier-ignore

const bar = 3840
const head = track('Songbook', [[0, 0xff, 0x51, 3, ...number(500_000, 3)], [0, 0xff, 0x58, 4, 4, 2, 24, 8]], 3 * bar) // prettier-ignore

describe('a score', () => {
  const counted = () =>
    readScore(
      file(
        head,
        track('count-in', [[0, 0x99, 37, 100], [960, 0x89, 37, 0]]),
        track('bass', [[0, 0xc1, 33], [bar, 0x91, 36, 90], [960, 0x81, 36, 0], [0, 0xc1, 34], [0, 0x91, 43, 80], [960, 0x81, 43, 0]]),
        track('drums', [[bar, 0x99, 38, 70], [10, 0x89, 38, 0]]),
        track('nobody', [[0, 0x95, 60, 100]]),
      ),
    ) // prettier-ignore

  it('is counted from its top, with what comes before it as the count-in', () => {
    const s = counted()
    expect([s.beat, s.tempo, s.countIn, s.end, s.pickup]).toEqual([960, 120, bar, 2 * bar, false])
    expect(s.metres).toEqual([{ at: -bar, bar }])
    expect(s.events.filter((e) => (e.data[0]! & 0xf0) === 0x90).map((e) => [players[e.track], e.at])).toEqual([
      ...(players.includes('count-in') ? [['count-in', -bar]] : []),
      ['bass', 0],
      ['drums', 0],
      ['bass', 960],
    ])
  })

  it('lasts as long as its bars and the count-in do at a tempo', () => {
    expect([120, 60, 96].map((tempo) => lasts(counted(), tempo))).toEqual([6, 12, 7.5])
    expect(lasts(readScore(file(head)), 120)).toBe(6)
  })

  it('sounds each note by the program that its player has then', () => {
    const all = sounded(counted()).filter((n) => n.player !== 'count-in')
    expect(all.map((n) => [n.player, n.midi, n.velocity])).toEqual([
      ['bass', 36, 90],
      ['drums', 38, 70],
      ['bass', 43, 80],
    ])
    expect(all.filter((n) => n.player === 'bass').map((n) => n.program)).toEqual([33, 34])
  })

  it('begins early where a lead does', () => {
    const s = readScore(file(head, track('count-in', [[0, 0x99, 37, 100]]), track('lead', [[2880, 0x90, 64, 90], [960, 0x80, 64, 0]]))) // prettier-ignore
    expect([s.pickup, s.events.find((e) => players[e.track] === 'lead')?.at]).toEqual([true, -960])
  })
})
