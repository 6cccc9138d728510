import { describe, expect, it, vi } from 'vitest'
import { delayOf, gateOf } from './calibration'
import { Ear } from './ear/ear'
import { Reel } from './ear/reel'
import { Listening, type Open, type Timed } from './listening'
import { Passes, type Noticed } from './passes'
import { Played } from './played'
import { clean, climbed, finer, paceOf } from './rungs'
import { erring, Simulated } from './simulated'
import { nearest } from './tuner'

/** A plucked tone: a few harmonics that fade. */
function pluck(into: Float32Array, rate: number, at: number, midi: number, length = 0.4) {
  const hertz = 440 * 2 ** ((midi - 69) / 12)
  for (let i = Math.round(at * rate), k = 0; k < length * rate && i < into.length; i++, k++) {
    const t = k / rate
    const fade = Math.exp(-t / 0.25) * Math.min(1, t / 0.002, (length - t) / 0.01)
    for (let h = 1; h <= 6 && h * hertz < rate / 2; h++)
      into[i]! += (0.25 / h) * fade * Math.sin(2 * Math.PI * hertz * h * t)
  }
}
function heard(sound: Float32Array, rate: number) {
  const ear = new Ear(rate)
  const all = []
  for (let at = 0; at + 256 <= sound.length; at += 256) all.push(...ear.hear(sound.subarray(at, at + 256)))
  return all
}

describe('the ear', () => {
  it.each([8000, 11025, 16000, 22050, 96000])('hears notes at %i samples too, and every figure is one', (rate) => {
    for (let midi = 45; midi <= 76; midi += 3) {
      const sound = new Float32Array(0.9 * rate)
      pluck(sound, rate, 0.3, midi, 0.6)
      const all = heard(sound, rate)
      expect(all.filter((o) => o.kind === 'attack').length, `${midi}`).toBeGreaterThanOrEqual(1)
      const settled = all.find((o) => o.kind === 'settled')
      expect(settled?.kind === 'settled' && Math.abs(settled.midi - midi), `pitch of ${midi}`).toBeLessThan(0.15)
      expect(JSON.stringify(all)).not.toContain('null') // as JSON writes what is no number
    }
  })
  it('tells that what comes in is cut off, and no longer once it is not', () => {
    const rate = 48000
    const ear = new Ear(rate)
    const play = (gain: number) => {
      const sound = new Float32Array(1.5 * rate)
      for (let k = 0; k < 4; k++) pluck(sound, rate, 0.1 + k / 3, 52, 0.3)
      for (let at = 0; at + 256 <= sound.length; at += 256) ear.hear(sound.subarray(at, at + 256).map((x) => Math.max(-1, Math.min(1, gain * x)))) // prettier-ignore
      return ear.clipped > 0.05
    }
    expect(play(0.5)).toBe(false)
    expect(play(12)).toBe(true)
    for (let k = 0; k < 3; k++) play(0.5)
    expect(play(0.5)).toBe(false)
  })
  it.each([44100, 48000])(
    'hears every note of the neck, in time and in tune, at %i samples',
    (rate) => {
      for (let midi = rate === 48000 ? 40 : 41; midi <= 86; midi += 2) {
        const sound = new Float32Array(0.35 * rate)
        pluck(sound, rate, 0.15, midi)
        const all = heard(sound, rate)
        const attack = all.find((o) => o.kind === 'attack')
        const settled = all.find((o) => o.kind === 'settled')
        expect(Math.abs(attack!.frame / rate - 0.15), `onset of ${midi}`).toBeLessThan(0.02)
        expect(settled?.kind === 'settled' && Math.abs(settled.midi - midi), `pitch of ${midi}`).toBeLessThan(0.1)
        expect(settled!.frame / rate - 0.15, `${midi} is known soon`).toBeLessThan(0.09)
      }
    },
    30_000,
  )
  it('hears nothing in silence and hum', () => {
    const sound = Float32Array.from({ length: 48000 }, (_, i) => 0.0008 * Math.sin((2 * Math.PI * 50 * i) / 48000))
    expect(heard(sound, 48000)).toEqual([])
  })
  it('tells vibrato from a note that is held still, one that is bent, and one that is out of tune', () => {
    const tone = (by: (t: number) => number) => {
      const sound = new Float32Array(60000)
      let phase = 0
      for (let i = 4800; i < sound.length; i++) {
        const t = (i - 4800) / 48000
        phase += (2 * Math.PI * 440 * 2 ** ((64 + by(t) - 69) / 12)) / 48000
        for (let h = 1; h <= 5; h++) sound[i]! += (0.25 / h) * Math.exp(-t / 0.9) * Math.sin(h * phase)
      }
      return heard(sound, 48000).filter((o) => o.kind === 'sway')
    }
    for (const speed of [4, 5, 6, 7])
      for (const width of [0.12, 0.25, 0.5]) {
        const swayed = tone((t) => (t > 0.15 ? (width * (1 - Math.cos(2 * Math.PI * speed * (t - 0.15)))) / 1 : 0))
        expect(swayed.length, `${speed} a second, ${width}`).toBeGreaterThan(0)
        const last = swayed.at(-1)!
        expect(last.width / width).toBeGreaterThan(0.7)
        expect(last.width / width).toBeLessThan(1.3)
        expect(Math.abs(last.rate! / speed - 1), `${speed} a second, ${width}: ${last.rate}`).toBeLessThan(0.12)
        expect(last.uneven, `${speed}, ${width}`).toBeLessThan(0.15)
        expect(Math.abs(last.low! - 64), 'it comes back to the note').toBeLessThan(0.2)
      }
    expect(tone(() => 0)).toEqual([])
    expect(tone(() => 0.3)).toEqual([])
    expect(tone((t) => Math.min(2, Math.max(0, (t - 0.2) * 8)))).toEqual([])
    expect(tone((t) => (t > 0.2 && t < 0.5 ? 2 * Math.sin((Math.PI * (t - 0.2)) / 0.3) : 0))).toEqual([])
  })
  it('tells what a stroke brought while another string rings on', () => {
    const sound = new Float32Array(48000)
    pluck(sound, 48000, 0.2, 52, 0.7)
    pluck(sound, 48000, 0.5, 64)
    const brought = heard(sound, 48000).filter((o) => o.kind === 'salience')
    expect(brought.map((o) => o.candidates[0]![0])).toEqual([52, 64])
  })
})

describe('what is played by MIDI', () => {
  it('sways where it is bent on and back several times, and is bent where it stays', () => {
    const played = new Played()
    played.struck('1 64', 64, 0)
    const wheel = (bends: number[]) =>
      bends.flatMap((by, i) => played.bent('1 64', by, 100 + 40 * i)).map((o) => o.kind)
    expect(wheel([0.1, 0.2, 0.1, 0, 0.1, 0.2, 0.1, 0, 0.1, 0.2])).toEqual(['sway'])
    played.struck('1 64', 64, 2000)
    expect(wheel([0.4, 0.9, 1.5, 2, 2])).not.toContain('sway')
    expect(wheel([2])).toEqual(['bend'])
  })
})

describe('the tuner', () => {
  const neck = { midi: [64, 59, 55, 50, 45, 40], open: ['E4', 'B3', 'G3', 'D3', 'A2', 'E2'] }
  it('finds the string that is meant, and how far it is off', () => {
    expect(nearest(54.8, neck)).toMatchObject({ string: 3, name: 'G3' })
    expect(nearest(54.8, neck).cents).toBeCloseTo(-20)
    expect(nearest(42, neck)).toMatchObject({ string: 6 })
  })
})

describe('a calibration', () => {
  it('puts the gate over the band alone, within bounds', () => {
    expect(gateOf([-50, -48, -49, -47, -30])).toEqual({ gate: -30, band: -30 })
    expect(gateOf(Array.from({ length: 20 }, () => -60)).gate).toBe(-54)
    expect(gateOf([]).gate).toBe(-64)
  })
  it('takes the middle of how far notes lie behind clicks', () => {
    const clicks = [0, 1, 2, 3, 4, 5, 6, 7]
    expect(delayOf(clicks, [0.05, 1.06, 2.05, 3.04, 4.2, 5.05])).toMatchObject({ heard: 6 })
    expect(delayOf(clicks, [0.05, 1.06, 2.05, 3.04, 4.2, 5.05]).delay).toBeCloseTo(0.05)
    expect(delayOf(clicks, [0.5, 1.5]).delay).toBeUndefined()
  })
})

describe('a ladder', () => {
  const paces = [
    { id: 'quarters', name: 'quarters', step: 960 },
    { id: 'eighths', name: 'eighths', step: 480 },
    { id: 'triplets', name: 'triplets', step: 320 },
  ]
  it('goes on above its goal in finer notes that come no faster than before, while there are any', () => {
    for (const goal of [80, 100, 140])
      for (const [i, p] of paces.slice(0, -1).entries()) {
        const to = finer(paces, p.id, goal)!
        expect(to.pace).toBe(paces[i + 1])
        expect(to.tempo / to.pace.step).toBeLessThan(goal / p.step)
        expect(to.tempo).toBeGreaterThan(0.75 * goal * (to.pace.step / p.step))
      }
    expect(finer(paces, 'triplets', 100)).toBeUndefined()
    expect(finer(paces, 'eighths', 40)).toBeUndefined()
    expect(finer(paces, 'none', 100)).toBeUndefined()
  })
  it('knows the note value that most of an exercise is written in', () => {
    expect(paceOf(paces, [0, 480, 960, 1440, 3840, 4320])).toBe('eighths')
    expect(paceOf(paces, [0])).toBeUndefined()
  })
  it('goes up after three clean passes in a row and down after one that was not', () => {
    let r = { tempo: 100, row: 0 }
    for (const [ok, tempo] of [
      [true, 100],
      [true, 100],
      [true, 105],
      [true, 105],
      [true, 105],
      [false, 100],
      [true, 100],
      [true, 100],
      [true, 105],
      [false, 100],
      [false, 95],
    ] as const) {
      // prettier-ignore
      r = climbed(r, ok)
      expect(r.tempo).toBe(tempo)
    }
    expect(climbed({ tempo: 300, row: 2 }, true).tempo).toBe(300)
    expect([clean(19, 20), clean(18, 20), clean(0, 0)]).toEqual([true, false, false])
  })
})

describe('a simulated player', () => {
  it('errs less from chorus to chorus, and never not at all', () => {
    const all = Array.from({ length: 30 }, (_, n) => erring(n))
    for (const [i, e] of all.entries()) {
      expect(e.wrong > 0.04 && e.wrong < 0.3 && e.late > 0.09 && e.late < 0.35).toBe(true)
      if (i) expect(e.wrong < all[i - 1]!.wrong && e.late < all[i - 1]!.late).toBe(true)
    }
  })
  it('tells what an ear would, each note once, when its time has come', () => {
    const player = new Simulated([{ at: 960, pitch: 62, length: 400 }, { at: 0, pitch: 60 }]) // prettier-ignore
    expect(player.due(50)).toEqual([])
    expect(player.due(100).map((o) => o.kind)).toEqual(['attack', 'settled', 'salience'])
    const later = player.due(2000)
    expect(later.map((o) => [o.kind, o.tick])).toEqual([['attack', 960], ['settled', 1000], ['salience', 1040], ['lost', 1360]]) // prettier-ignore
    expect(later.every((o) => o.seq > 3)).toBe(true)
  })
})

const attack = (seq: number, tick = 0): Timed => ({ seq, kind: 'attack', frame: 0, tick })
/* A server that can be cut off. */
class Socket {
  static all: Socket[] = []
  static readonly OPEN = 1
  sent: { observations?: Timed[]; end?: boolean; line?: unknown }[] = []
  readyState = 0
  onopen?: () => void
  onmessage?: (m: { data: string }) => void
  onclose?: () => void
  constructor() {
    Socket.all.push(this)
  }
  open() {
    this.readyState = 1
    this.onopen?.()
  }
  send(text: string) {
    this.sent.push(JSON.parse(text) as Socket['sent'][number])
  }
  tell(what: object) {
    this.onmessage?.({ data: JSON.stringify(what) })
  }
  close() {
    this.readyState = 3
    this.onclose?.()
  }
}
vi.stubGlobal('WebSocket', Socket)
const socket: Open = () => new Socket() as unknown as WebSocket
const last = () => Socket.all.at(-1)!

describe('a take that is listened to', () => {
  it('is told again as a whole when the connection was lost, and judged in the end', async () => {
    vi.useFakeTimers()
    const says: string[] = []
    const heard: number[] = []
    const l = new Listening(
      { mode: 'land' },
      { trouble: (t) => says.push(t), heard: (n) => heard.push(n.length) },
      socket,
    )
    l.notice([attack(1)], 10)
    last().open()
    expect(last().sent).toEqual([{ mode: 'land' }, { observations: [attack(1)], now: 10 }])
    l.notice([attack(2)], 20)
    last().tell({ from: 0, heard: [{ at: 0, pitch: 60 }] })
    last().tell({ from: 1, heard: [{ at: 5, pitch: 62 }] })
    expect(heard).toEqual([1, 2])
    last().close()
    expect(says[0]).toContain('kept')
    l.notice([attack(3)], 30)
    vi.advanceTimersByTime(600)
    last().open()
    expect(last().sent[1]!.observations).toEqual([attack(1), attack(2), attack(3)])
    const whole = l.end()
    expect(last().sent.at(-1)).toMatchObject({ end: true })
    last().tell({ from: 0, heard: [], free: { good: 'well' } })
    expect(await whole).toMatchObject({ free: { good: 'well' } })
    expect(last().readyState).toBe(3)
    vi.useRealTimers()
  })
  it('keeps apart what several sources tell, and is quiet while nothing is noticed', () => {
    const l = new Listening({}, {}, socket)
    last().open()
    const settled = (of: number): Timed => ({ seq: of + 1, kind: 'settled', of, frame: 0, tick: 0, midi: 60, clarity: 1 }) // prettier-ignore
    l.notice([attack(7), settled(7)], 0)
    l.notice([attack(1), settled(1)], 0, 'MIDI')
    l.notice([], 1)
    l.notice([], 2)
    const told = last().sent.flatMap((m) => m.observations ?? [])
    expect(told.map((o) => [o.seq, 'of' in o ? o.of : 0])).toEqual([[1, 0], [2, 1], [3, 0], [4, 3]]) // prettier-ignore
    expect(last().sent).toHaveLength(4) // the wish, one empty one at the opening, and two
    l.drop()
  })
  it('ends by itself where no answer comes', async () => {
    vi.useFakeTimers()
    const whole = new Listening({}, {}, socket).end()
    vi.advanceTimersByTime(6000)
    expect(await whole).toEqual({ heard: [] })
    vi.useRealTimers()
  })
})

describe('passes of a loop', () => {
  it('are listened to one by one; what comes late belongs to the pass it was played in', async () => {
    const told: string[] = []
    const over: number[] = []
    const passes = new Passes(
      (pass) => ({
        notice: (list, now) => told.push(`${pass}: ${list.map((o) => o.seq).join()} at ${now}`),
        end: () => Promise.resolve({ heard: [] }),
        drop: () => told.push(`${pass} dropped`),
      }),
      (_, pass) => over.push(pass),
    )
    const at = (seq: number, pass: number): Noticed => ({ ...attack(seq), pass })
    passes.noticed([at(1, 0)], { tick: 5, pass: 0 })
    passes.noticed([at(2, 0), at(3, 1)], { tick: 7, pass: 1 })
    passes.noticed([at(4, 0)], { tick: 9, pass: 1 })
    await Promise.resolve()
    expect(told).toEqual(['0: 1 at 5', `0: 2 at ${Number.MAX_SAFE_INTEGER}`, '1: 3 at 7', '1:  at 9'])
    await Promise.resolve()
    expect(over).toEqual([0])
    passes.drop()
    expect(told.at(-1)).toBe('1 dropped')
  })
  it('are judged as far as they went: over, to the end of the beat; stopped, to where the band was', async () => {
    vi.useFakeTimers()
    const ends: unknown[] = []
    const passes = new Passes(
      () => ({
        notice: () => undefined,
        end: (span) => (ends.push(span), Promise.resolve({ heard: [] })),
        drop: () => ends.push('dropped'),
      }),
      (_, pass, span) => ends.push([pass, span]),
    )
    passes.at({ tick: -300, pass: 0 })
    passes.noticed([], { tick: 10, pass: 0 })
    passes.noticed([], { tick: 11_400, pass: 0 })
    passes.at({ tick: 2, pass: 1 }) // the band is told ahead of what is heard
    passes.noticed([], { tick: 11_450, pass: 0 })
    passes.noticed([], { tick: 30, pass: 1 })
    await Promise.resolve()
    await Promise.resolve()
    const whole = { from: -300, to: 11_520 }
    expect(ends).toEqual([whole, [0, whole]])
    passes.noticed([], { tick: 2_500, pass: 1 })
    passes.close()
    await vi.advanceTimersByTimeAsync(300)
    expect(ends.slice(2)).toEqual([{ from: 2, to: 2_660 }, [1, { from: 2, to: 2_660 }]])
    passes.anew()
    expect(passes.span(1, true)).toBeUndefined()
    vi.useRealTimers()
  })
})

describe('a reel', () => {
  it('gives back what was heard between two frames, at half the rate, and silence where nothing was', () => {
    const reel = new Reel(48000)
    const samples = Float32Array.from({ length: 256 }, (_, i) => (i < 128 ? 0.5 : -0.25))
    reel.add(10_000, samples)
    reel.add(10_512, samples) // 256 are missing between
    const wav = new DataView(reel.wav(9_900, 10_800))
    expect(wav.getUint32(24, true)).toBe(24000)
    expect(wav.byteLength).toBe(44 + 900)
    const at = (frame: number) => wav.getInt16(44 + 2 * Math.floor((frame - 9_900) / 2), true) / 32767
    expect(at(9_950)).toBe(0)
    expect(at(10_010)).toBeCloseTo(0.5)
    expect(at(10_200)).toBeCloseTo(-0.25)
    expect(at(10_400)).toBe(0)
    expect(at(10_520)).toBeCloseTo(0.5)
    expect(at(10_790)).toBe(0)
  })
  it('forgets what is older than it is long', () => {
    const reel = new Reel(2000)
    const second = new Float32Array(2000).fill(0.5)
    for (let s = 0; s < 300; s++) reel.add(s * 2000, second)
    const first = (from: number) => new DataView(reel.wav(from, from + 4)).getInt16(44, true)
    expect(first(20 * 2000)).toBe(0)
    expect(first(100 * 2000)).toBeGreaterThan(0)
  })
})
