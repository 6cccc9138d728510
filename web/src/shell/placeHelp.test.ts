import { readFileSync } from 'node:fs'
import { expect, it } from 'vitest'
import { helpOf } from './placeHelp'

it('every place says what one does there', () => {
  const names = [...readFileSync(new URL('../router.ts', import.meta.url), 'utf8').matchAll(/name: '([^']+)'/g)].map(
    (m) => m[1]!,
  )
  expect(names.length).toBeGreaterThan(12)
  const rooms = ['today', 'calls', 'changes', 'takes', 'log', 'lessons']
  const all = names.flatMap((n) => (n === 'practice' ? rooms.map((r) => helpOf(n, r)) : [helpOf(n, undefined)]))
  for (const [i, h] of all.entries()) {
    expect(h?.steps.length ?? names[i]).toBeGreaterThan(0)
    for (const s of h!.steps) expect(s).toMatch(/^[A-Z].*\.$/)
  }
  expect(helpOf('practice', undefined)).toBe(helpOf('practice', 'calls'))
})
