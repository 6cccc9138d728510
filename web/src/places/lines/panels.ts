/* What can be done with a line: each stands open when it is asked for. */
export const panels = [
  { id: 'write', name: 'Write' },
  { id: 'lick', name: 'Lick' },
  { id: 'dress', name: 'Dress' },
  { id: 'drill', name: 'Exercise' },
  { id: 'blend', name: 'Blend' },
  { id: 'landings', name: 'Landings' },
]
