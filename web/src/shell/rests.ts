/* What may rest, as it is written: a rule, and others over places of the key: "usual,five:wide". */

/** The rule over a place of the key, or over every chord where none is said; "" is as elsewhere. */
export function restsOver(text: string, place = ''): string {
  const [first, ...over] = text.split(',')
  if (!place) return first || 'usual'
  return over.find((o) => o.startsWith(`${place}:`))?.slice(place.length + 1) ?? ''
}

/** The same with another rule over a place, or over every chord; "" takes a place's own away. */
export function withRests(text: string, rule: string, place = ''): string {
  const [first, ...over] = text.split(',')
  if (!place) return [rule, ...over].join(',')
  const others = over.filter((o) => !o.startsWith(`${place}:`))
  return [first || 'usual', ...others, ...(rule ? [`${place}:${rule}`] : [])].join(',')
}
