/* Which key answers what: a chord's degrees by their figure, all twelve by how many half steps they lie above the root. */
import type { Call } from '../../api/client'

const twelve = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '0', '-', '=']

export function keysOf(call: Call): Record<string, string> {
  if (call.kind === 'bend') return Object.fromEntries(call.options.map((o) => [o, o]))
  if (call.options.length === 12) return Object.fromEntries(call.options.map((o, i) => [o, twelve[i] ?? '']))
  const taken = new Set<string>()
  return Object.fromEntries(
    call.options.map((o) => {
      const figure = o === 'R' ? '1' : o.replace(/\D/g, '')
      const key = figure === '9' || figure === '11' || figure === '13' ? { 9: '2', 11: '4', 13: '6' }[figure]! : figure
      const own = taken.has(key) ? '' : key
      taken.add(own)
      return [o, own]
    }),
  )
}
