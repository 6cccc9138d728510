import { describe, expect, it } from 'vitest'
import { fretWidth, isWide, pageRule, sheetsOf, sizeOf } from './sheets'

describe('sheets', () => {
  it('hold every chord once, in order, evenly, and no more than stay readable', () => {
    for (const frets of [5, 8, 9, 12, 13, 22])
      for (let n = 0; n <= 40; n++) {
        const columns = Array.from({ length: n }, (_, i) => i)
        const sheets = sheetsOf(columns, frets)
        expect(sheets.flat()).toEqual(columns)
        const most = isWide(frets) ? 4 : frets > 8 ? 3 : 8
        expect(sheets).toHaveLength(Math.ceil(n / most))
        for (const s of sheets) expect(s.length > 0 && s.length <= most).toBe(true)
      }
  })

  it('leave a fret as much room as there is, within what can be read', () => {
    for (const paper of ['A4', 'Letter'] as const)
      for (let chords = 1; chords <= 8; chords++)
        for (let rows = 0; rows <= 7; rows++) {
          const w = fretWidth(paper, chords, rows, 5)
          expect(w >= 34 && w <= 78).toBe(true)
          expect(w).toBeLessThanOrEqual(fretWidth(paper, Math.max(1, chords - 1), rows, 5))
        }
    expect(sizeOf('A4')).toEqual({ width: 297, height: 210 })
    expect([pageRule('A4'), pageRule('Letter')].map((r) => /size: (\w+) landscape/.exec(r)![1])).toEqual([
      'A4',
      'letter',
    ])
  })
})
