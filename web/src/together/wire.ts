/* One socket to the program, by which a page at the laptop and the devices that follow it tell each other where they are. Whose
   clock is whose is measured over it: of the last answers the one that was quickest there and back says it best. */
import type { Lead } from './lead'

export type DeedId = 'play' | 'next' | 'back' | 'loop' | 'again' | 'slower' | 'faster' | 'show' | 'keep'
export interface News {
  path: string
  version: string
}

interface Message {
  ping?: number
  pong?: number
  at?: number
  lead?: Lead | null
  do?: DeedId
  news?: News
  error?: string
}

/** Who is told what comes. */
export interface Ears {
  lead?: (lead: Lead | null) => void
  do?: (deed: DeedId) => void
  news?: (news: News) => void
  error?: (why: string) => void
  /** The socket is there and the clocks are known, or no longer. */
  there?: (now: boolean) => void
}

/** How often the clocks are compared, at first and later, and how many answers count. */
const soon = 60
const later = 5000
const first = 5
const counted = 8
/** After how long a socket that broke is tried again, at least and at most, in milliseconds. */
const patience = [400, 8000] as const

export class Wire {
  private socket?: WebSocket
  private samples: { offset: number; took: number }[] = []
  private asked?: ReturnType<typeof setTimeout>
  private tries = 0
  private over = false

  constructor(
    private readonly ears: Ears,
    private readonly open: () => WebSocket,
    private readonly now = () => performance.now(),
  ) {
    this.connect()
  }

  private connect() {
    if (this.over) return
    const socket = (this.socket = this.open())
    this.samples = []
    socket.onopen = () => this.ask()
    socket.onmessage = (e: MessageEvent<string>) => socket === this.socket && this.hear(JSON.parse(e.data) as Message)
    socket.onclose = () => {
      if (socket !== this.socket) return
      clearTimeout(this.asked)
      this.socket = undefined
      this.samples = []
      this.ears.there?.(false)
      const wait = Math.min(patience[1], patience[0] * 2 ** this.tries++)
      setTimeout(() => this.connect(), wait)
    }
  }

  private ask() {
    this.say({ ping: this.now() })
    clearTimeout(this.asked)
    this.asked = setTimeout(() => this.ask(), this.samples.length < first ? soon : later)
  }

  private hear(m: Message) {
    if (m.pong !== undefined && m.at !== undefined) {
      const now = this.now()
      this.samples.push({ offset: m.at - (m.pong + now) / 2, took: now - m.pong })
      if (this.samples.length > counted) this.samples.shift()
      this.tries = 0
      if (this.samples.length === first) this.ears.there?.(true)
    }
    if (m.lead !== undefined) this.ears.lead?.(m.lead)
    if (m.do) this.ears.do?.(m.do)
    if (m.news) this.ears.news?.(m.news)
    if (m.error) this.ears.error?.(m.error)
  }

  say(m: Message) {
    if (this.socket?.readyState === 1) this.socket.send(JSON.stringify(m))
  }

  /** Both clocks are known. */
  get known() {
    return this.samples.length >= first
  }
  private get offset() {
    return this.samples.reduce((a, b) => (b.took < a.took ? b : a)).offset
  }
  /** A time of this page as the program counts it, in milliseconds; and back. */
  there = (at: number) => at + this.offset
  here = (at: number) => at - this.offset

  /** The machine woke: what is open may be dead, and the clock may have stood still. */
  wake() {
    this.tries = 0
    this.socket?.close()
  }

  close() {
    this.over = true
    clearTimeout(this.asked)
    const socket = this.socket
    this.socket = undefined
    socket?.close()
  }
}

export const openSocket = () =>
  new WebSocket(`${location.protocol === 'https:' ? 'wss' : 'ws'}://${location.host}/api/follow`)
