/* From a change that is looked at to practising it. */

/** The way to practise that asks for a degree. */
export function modeOf(degree = ''): string {
  const step = degree.replace(/^[b#]+/, '')
  return { R: 'roots', '3': 'thirds', '5': 'fifths', '6': 'sevenths', '7': 'sevenths' }[step] ?? 'land'
}
