/* From what is looked at to practising it: the bars that go round, the place on the neck, the way that asks for it and the
   ear, in one press. All of it stands in the address, so that any place leads there, and Back leads back. */
import { useRouter, type RouteLocationRaw } from 'vue-router'

export interface Landing {
  chart?: number
  /** the way to practise; else that of a degree */
  mode?: string
  degree?: string
  /** bars, as a loop is written: 5-6, or 5.3-6.2; or a change, that is looked for: D7,G7 */
  loop?: string
  change?: string
  /** 7-11 */
  frets?: string
  /** numbers of strings: 5,2 */
  on?: string
  tempo?: number
  /** the lick or the line that it is made of */
  with?: number
  /** the recording that plays in the band's place */
  record?: number
}

/** The way to practise that asks for a degree. */
export function modeOf(degree = ''): string {
  const step = degree.replace(/^[b#]+/, '')
  return { R: 'roots', '3': 'thirds', '5': 'fifths', '6': 'sevenths', '7': 'sevenths' }[step] ?? 'land'
}

export const landingAt = ({
  chart,
  mode,
  degree,
  tempo,
  on,
  with: made,
  record,
  ...rest
}: Landing): RouteLocationRaw => ({
  name: 'practice',
  params: { id: chart },
  query: { do: 'changes', mode: mode ?? modeOf(degree), ...rest, hold: on && `strings:${on}`, tempo: tempo && `${tempo}`, with: made && `${made}`, record: record && `${record}`, play: 'yes' }, // prettier-ignore
})

export function useLanding() {
  const router = useRouter()
  return (l: Landing) => void router.push(landingAt(l))
}
