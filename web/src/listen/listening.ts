/* A take that is listened to: what was noticed goes to the core over a socket, what it makes of it comes back. */
import type { FreeLanding, FreeTake, HeardNote, Holding, PlayedSpan, LineBody, TakeVerdicts } from '../api/client'
import type { Observation } from './useEar'

/** An observation with the tick at which the band was heard. */
export type Timed = Observation & { tick: number }
type Verdict = TakeVerdicts['verdicts'][number]
interface Told {
  from: number
  heard?: HeardNote[]
  verdicts?: Verdict[]
  landings?: FreeLanding[]
  take?: TakeVerdicts
  free?: FreeTake
  written?: LineBody
  inTune?: number
  error?: string
}
export interface Wish {
  line?: LineBody
  /** where nothing is written, and only the chords of the line are there */
  mode?: string
  pass?: number
  /** limits that are held to besides */
  hold?: Holding
  /** what the band plays meanwhile, which a microphone hears too: ticks and MIDI numbers */
  band?: [number, number][]
  /** strokes of this player that were in tune in the take before: who is known goes on being known */
  known?: number
  tempo?: number
  swing?: number
}

/** As many as say that a player is surely there. */
const certain = 12

export interface Hearer {
  heard?: (notes: HeardNote[]) => void
  verdicts?: (list: Verdict[]) => void
  landings?: (list: FreeLanding[]) => void
  inTune?: (strokes: number) => void
  trouble?: (says: string) => void
}

/** A take as a whole: judged as a line or as a pass of a mode, and what was played written down. */
export interface Whole {
  take?: TakeVerdicts
  free?: FreeTake
  written?: LineBody
  heard: HeardNote[]
  /** which pass of the band it was */
  pass?: number
}

/** Milliseconds until a socket that broke is opened again. */
const again = 500
const patience = 5000
/** Milliseconds from one message to the next while nothing is noticed. */
const rest = 250

export type Open = () => WebSocket
const socketOf: Open = () =>
  new WebSocket(`${location.protocol === 'https:' ? 'wss' : 'ws'}://${location.host}/api/ear`)

export class Listening {
  private socket?: WebSocket
  private readonly all: Timed[] = []
  /** How many of them the socket was told. */
  private told = 0
  private now = 0
  private sent = 0
  /** The numbers that observations have here, by source and by the number they came with. */
  private readonly numbers = new Map<string, number>()
  private notes: HeardNote[] = []
  /** Something came that no ear has to make out: by MIDI, by a key, by a simulated player. */
  private sure = false
  private over?: (whole: Whole) => void
  private closed = false
  private span?: PlayedSpan

  constructor(
    private readonly wish: Wish,
    private readonly to: Hearer,
    private readonly open: Open = socketOf,
  ) {
    this.connect()
  }

  /** A socket that broke is told everything once more: what was noticed is kept here. */
  private connect() {
    const socket = this.open()
    this.socket = socket
    this.told = 0
    socket.onopen = () => {
      socket.send(JSON.stringify(this.wish))
      this.flush()
      if (this.over) this.finish()
    }
    socket.onmessage = ({ data }: MessageEvent<string>) => this.hear(JSON.parse(data) as Told)
    socket.onclose = () => {
      if (this.closed || this.socket !== socket) return
      this.to.trouble?.('The connection to Undaris was lost; what was played is kept, and judged when it is back.')
      setTimeout(() => !this.closed && this.connect(), again)
    }
  }

  private hear(t: Told) {
    if (t.error) {
      this.to.trouble?.(t.error)
      return this.done()
    }
    this.notes = [...this.notes.slice(0, t.from), ...(t.heard ?? [])]
    if (t.heard?.length) this.to.heard?.(this.notes)
    if (t.verdicts?.length) this.to.verdicts?.(t.verdicts)
    if (t.landings?.length) this.to.landings?.(t.landings)
    if (t.inTune) this.to.inTune?.(t.inTune)
    if (t.take || t.free || (this.over && !this.wish.line && this.told === this.all.length)) this.done(t)
  }

  private flush() {
    if (this.socket?.readyState !== WebSocket.OPEN) return
    this.sent = performance.now()
    const observations = this.all.slice(this.told)
    this.told = this.all.length
    this.socket.send(JSON.stringify({ observations, now: this.now, ...(this.sure && { known: certain }) }))
  }

  /** What was noticed up to a tick. Sources (the ear, MIDI, a simulated player) count each for themselves. */
  notice(observations: Timed[], now: number, source = 'ear') {
    this.sure ||= source !== 'ear' && observations.length > 0
    for (const o of observations) {
      const seq = this.all.length + 1
      this.numbers.set(`${source} ${o.seq}`, seq)
      this.all.push('of' in o ? { ...o, seq, of: this.numbers.get(`${source} ${o.of}`) ?? 0 } : { ...o, seq })
    }
    this.now = now
    // Where nothing was noticed it is enough to tell now and then where the band is.
    if (observations.length || performance.now() - this.sent > rest) this.flush()
  }

  private finish() {
    this.socket?.send(JSON.stringify({ end: true, now: this.now, played: this.span }))
  }

  /** What the whole take is, as far as it was played; nothing after a while without an answer. */
  end(span?: PlayedSpan): Promise<Whole> {
    this.span = span
    return new Promise((over) => {
      this.over = over
      if (this.socket?.readyState === WebSocket.OPEN) this.finish()
      setTimeout(() => this.done(), patience)
    })
  }

  private done({ take, free, written }: Partial<Told> = {}) {
    if (this.closed) return
    this.closed = true
    this.socket?.close()
    this.over?.({ take, free, written, heard: this.notes })
  }

  /** Ends it without asking what it was. */
  drop() {
    this.done()
  }
}
