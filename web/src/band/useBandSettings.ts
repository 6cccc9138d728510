/* How the player likes the band: kept from one visit to the next. */
import { defineStore } from 'pinia'
import { useSetting } from '../memory/settings'
import type { Ladder } from './settings'

export const useBandSettings = defineStore('band settings', () => {
  const kept = useSetting('band', {
    countIn: true,
    counted: 'bar' as 'bar' | 'two' | 'pickup',
    click: false,
    clickOnly: false,
    dropChords: false,
    comp: 'guitar',
    intensity: 3,
    arc: 'level',
    course: 'all',
    bass: 'own',
    marks: 'beats',
    volume: 0.8,
    cautioned: false,
    levels: { drums: 1, bass: 1, chords: 1, lead: 1, metronome: 1 } as Record<string, number>,
    muted: [] as string[],
    ladder: { on: false, goes: false, from: 60, goal: 120, step: 5, passes: 2 } as Ladder & {
      on: boolean
      /** by how it goes, not by passes alone */
      goes?: boolean
      from: number
    },
  })
  return { kept }
})
