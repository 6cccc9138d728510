/* Places to press, come to by the arrow keys as they lie on the neck: string 1 on top, low frets on the left, or on the right
   where the neck is turned. */
import type { Place } from '../api/client'

/** The place that an arrow leads to among those of some strings, the first on top, and frets; the same where there is none. */
export function towards(
  from: Place,
  arrow: string,
  on: { strings: number[]; frets: number[]; left?: boolean },
): Place | undefined {
  const go = (list: number[], now: number, by: number) =>
    list[Math.max(0, Math.min(list.length - 1, Math.max(0, list.indexOf(now)) + by))]!
  const along = on.left ? -1 : 1
  switch (arrow) {
    case 'ArrowUp':
      return { ...from, string: go(on.strings, from.string, -1) }
    case 'ArrowDown':
      return { ...from, string: go(on.strings, from.string, 1) }
    case 'ArrowLeft':
      return { ...from, fret: go(on.frets, from.fret, -along) }
    case 'ArrowRight':
      return { ...from, fret: go(on.frets, from.fret, along) }
  }
  return undefined
}
