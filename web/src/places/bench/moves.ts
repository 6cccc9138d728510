import type { Move, Place } from '../../api/client'

export const same = (a?: Place, b?: Place) => !!a && !!b && a.string === b.string && a.fret === b.fret

/** Where a move arrives: from the note in hand if it begins there, or else where the hand travels least. */
export const nearest = (m: Move, from?: Place): Place | undefined =>
  (m.places.find((p) => same(p.from, from)) ?? m.places[0])?.to
