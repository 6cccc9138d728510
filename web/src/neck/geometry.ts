import type { Instrument } from '../api/client'

export interface Frame {
  width: number
  height: number
  /** Frets shown, both ends included. */
  from: number
  to: number
  /** Room above the first string and below the last, when not the usual. */
  top?: number
  foot?: number
}

/** How much narrower each fret is drawn than the last: gentler than the real neck, so that high frets can be read. */
const taper = 26

/** Places frets and strings in a drawing. Low frets to the left and string 1 on top; mirrored for left-handers. */
export function geometry(frame: Frame, instrument: Pick<Instrument, 'open' | 'left'>) {
  const strings = instrument.open.length
  const margin = { side: 14, names: 44, top: frame.top ?? 30, foot: frame.foot ?? 50 }
  const start = frame.from === 0 ? margin.names : margin.side + 16
  const along = (n: number) => 1 - 2 ** (-n / taper)
  const first = frame.from === 0 ? 0 : frame.from - 1
  const room = frame.width - start - margin.side
  const scale = room / (along(frame.to) - along(first))
  const flip = (x: number) => (instrument.left ? frame.width - x : x)
  const wire = (n: number) => flip(start + (along(n) - along(first)) * scale)
  const gap = (frame.height - margin.top - margin.foot) / (strings - 1)
  return {
    strings,
    gap,
    /** x of a fret wire; 0 is the nut. */
    wire,
    /** x where a finger on a fret goes; fret 0 is beside the nut. */
    fret: (n: number) => (n === 0 ? flip(start - 18) : (wire(n - 1) + wire(n)) / 2),
    string: (s: number) => margin.top + (s - 1) * gap,
    names: flip(start > 30 ? 10 : 6),
    numbers: frame.height - 11,
    /** Half the space between two frets, the most a mark may take. */
    half: (n: number) => Math.abs(wire(n) - wire(Math.max(n - 1, 0))) / 2,
    /** The fret at a point, for pointing and dragging. */
    fretAt: (x: number) => {
      for (let n = first + 1; n <= frame.to; n++) {
        const [a, b] = [wire(n - 1), wire(n)]
        if (x >= Math.min(a, b) && x < Math.max(a, b)) return n
      }
      return flip(x) < start ? first : frame.to
    },
  }
}

export type Geometry = ReturnType<typeof geometry>

/** A drawing narrower than this is on a screen that is pressed by a thumb: then a string takes as much as that needs. */
export const narrow = 700
const thumb = 44
/** How high a neck of so many strings is where it is narrow; margins are those above the first string and below the last. */
export const thumbHigh = (strings: number, margins = 80) => thumb * (strings - 1) + margins
/** How high the neck of the Bench is: for a thumb where it is narrow, little on a low screen, more on a high one. */
export const neckHigh = (width: number, tall: number, strings: number) =>
  width < narrow ? thumbHigh(strings) : tall < 900 ? 224 : Math.min(420, Math.max(258, tall * 0.3))
/** How many frets a thumb can tell apart in so much room. */
export const thumbWide = (width: number) => Math.max(4, Math.floor((width - 60) / thumb))

/** Frets that carry position dots, and those with two. */
export const dots = [3, 5, 7, 9, 12, 15, 17, 19, 21, 24, 27]
export const doubleDots = [12, 24]
