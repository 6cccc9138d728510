/* What the band is asked to play, and how. */
import { answer, api, type LeadNote } from '../api/client'
import type { LoopBeats } from './settings'

export interface Cue {
  beat: number
  length: number
  place: { string: number; fret: number }
}

/** What is played instead of the chart, looped: bars with notes over them. */
export interface Audition {
  title: string
  beats: number
  /** Fetches the MIDI file, played as asked. */
  load: (how: Playing) => Promise<ArrayBuffer>
  cues: Cue[]
  /** What is a whole form has bars: it can be counted in and looped in part. */
  bars?: number
  /** How many beats each has, where they differ. */
  lengths?: number[] | null
  tempo?: number
  /** A loop in beats; without one all of it comes round. */
  loop?: LoopBeats
}

/** How the band is asked to play. */
export interface Playing {
  comp: string
  intensity: number
  arc: string
  course: string
  bass: string
  click: string
  swing?: number
  metronome: boolean
  seed: number
  tempo: number
  choruses: number
  /** How it begins and ends, and whether it is counted in. */
  intro?: string
  ending?: string
  countIn?: 'true' | 'false'
}

/** Bars with notes over them, one after the other. */
export const phrase = (body: { text: string; key: string; beats: number; feel: string; lead: LeadNote[] }) => ({
  beats: body.beats,
  load: (how: Playing) =>
    answer<ArrayBuffer>(
      api.POST('/api/bands/midi', {
        params: { query: how },
        body,
        parseAs: 'arrayBuffer' as const,
      }) as unknown as Promise<{ data?: ArrayBuffer; error?: unknown; response: Response }>,
    ),
})
