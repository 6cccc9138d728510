import type { Anchor, CountIn, Ladder, Loop, Score, SoundEvent } from './transport'

/** Who sounds on which channel of the synthesiser; tracks of a score are matched by name. */
export const channels: Record<string, { channel: number; drum?: boolean; program?: number }> = {
  drums: { channel: 9, drum: true },
  bass: { channel: 0 },
  chords: { channel: 1 },
  lead: { channel: 2 },
  'lead beside': { channel: 3 },
  tone: { channel: 4, program: 27 },
  /** A simulated player, who is heard by himself too: on the second output. */
  player: { channel: 5, program: 27 },
  'count-in': { channel: 10, drum: true },
  metronome: { channel: 11, drum: true },
}
export const players = Object.keys(channels)

/** A score whose tracks are numbered as in players. */
export type { Anchor, Ladder, Loop, Score }

/** From the page to the sound. */
export type Order =
  | { do: 'bank'; bank: ArrayBuffer; samples: MessagePort }
  /** after: seconds, in which what sounds beside it gets ready */
  | { do: 'start'; from: number; tempo: number; loop?: Loop; countIn: CountIn; after: number }
  | { do: 'stop' }
  | { do: 'tempo'; tempo: number }
  | { do: 'loop'; loop?: Loop }
  | { do: 'ladder'; ladder?: Ladder }
  | { do: 'go'; to: number }
  | { do: 'last' }
  | { do: 'level'; player: string; level: number }
  | { do: 'tone'; midi: number; velocity: number }
  | { do: 'hush'; midi: number }
  | { do: 'join'; events: SoundEvent[] }

/** From the sound to the page. */
export type Report =
  | { is: 'ready' }
  | { is: 'loaded'; id: number }
  | { is: 'at'; anchor: Anchor }
  | { is: 'over' }
  | { is: 'broken'; why: string }

/** From the reader of scores and samples to the sound. */
export type Delivery = { score: Score; id: number } | { sample: number; rate: number; data: Float32Array }

/** From the reader to the page: the notes of a score, its ticks and MIDI numbers, in order, and which are a lead's. */
export interface Read {
  id: number
  notes: [number, number][]
  lead: boolean[]
  /** how many of the ticks before the top are an intro */
  intro: number
  /** and a pickup */
  pickup: number
}

/** From the page to what writes a file: the instruments, what they play and how loud each is. */
export interface Writing {
  bank: ArrayBuffer
  midi: ArrayBuffer
  /** Beats a minute; without, as the file has it. */
  tempo?: number
  levels: Record<string, number>
}

/** From there to the page: how far it is, the file, or why there is none. */
export type Written = { part: number } | { wav: ArrayBuffer } | { why: string }

/** From the page to the reader. */
export type Request = { bank: ArrayBuffer; samples: MessagePort } | { midi: ArrayBuffer; id: number }
