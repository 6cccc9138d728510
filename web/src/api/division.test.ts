import { describe, expect, it } from 'vitest'
import { stringSets } from './division'

const known = [
  { strings: '', name: 'all strings' },
  { strings: '5,2', name: 'strings 5 and 2' },
]

describe('sets of strings', () => {
  it('has a name for every string, and for a set that was chosen otherwise', () => {
    expect(stringSets(known, undefined).map((s) => s.id)).toEqual(['all', '5,2'])
    expect(stringSets(known, '5,2')).toHaveLength(2)
    expect(stringSets(known, '7,6,4').at(-1)).toEqual({ id: '7,6,4', name: 'strings 7, 6 and 4' })
    expect(stringSets(known, '3').at(-1)).toEqual({ id: '3', name: 'string 3' })
    expect(stringSets(undefined, undefined)).toEqual([])
  })
})
