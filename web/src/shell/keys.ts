/** Whether a key press belongs to a field, menu or open dialog rather than to the place. */
export function isTyping(e: KeyboardEvent): boolean {
  const el = e.target as HTMLElement | null
  return (
    !!el?.closest('input, textarea, select, [contenteditable], [role="listbox"], [role="combobox"]') ||
    !!document.querySelector('[role="dialog"]')
  )
}

/** A plain key, meant for the place. */
export const bare = (e: KeyboardEvent) => !e.ctrlKey && !e.metaKey && !e.altKey && !isTyping(e)

export interface KeyHelp {
  keys: string[]
  does: string
}

/** Every key of the Bench, as the help lists them. */
export const keyHelp: { place: string; keys: KeyHelp[] }[] = [
  {
    place: 'Bench',
    keys: [
      { keys: ['left', 'right'], does: 'chord by chord through the bars; a page-turner pedal does it too' },
      { keys: ['Home', 'End'], does: 'first or last bar' },
      { keys: ['up', 'down'], does: 'next position up or down the neck; your own window moves by a fret' },
      { keys: ['1', '…', '5'], does: 'that position, and again for its other octave' },
      { keys: ['W'], does: 'a window of your own, and back' },
      { keys: ['N'], does: 'labels: degree, note, finger, fret' },
      { keys: ['T'], does: 'another target for the next change' },
      { keys: ['P'], does: 'another palette' },
      { keys: ['A', 'B'], does: 'dim the arrivals or the bends' },
      { keys: ['U'], does: 'undo the last choice' },
      { keys: ['M'], does: 'music stand, and back' },
    ],
  },
  {
    place: 'Lines, on the tablature',
    keys: [
      { keys: ['left', 'right'], does: 'to the next note or step; with shift the note moves in time' },
      { keys: ['up', 'down'], does: 'another string; with shift the same note on it' },
      { keys: ['0', '…', '9'], does: 'write a fret' },
      { keys: ['+', '-'], does: 'longer, shorter' },
      { keys: ['H', 'P', 'S'], does: 'hammer-on, pull-off, slide' },
      { keys: ['B', 'R', 'V'], does: 'bend further, release, vibrato' },
      { keys: ['G', 'T', 'A', 'X'], does: 'slide in, trill, accent, dead note' },
      { keys: ['Delete'], does: 'take the note away; Ctrl Z takes back, Ctrl Y does again' },
    ],
  },
  {
    place: 'Everywhere',
    keys: [
      { keys: ['space'], does: 'the band plays, or stops' },
      { keys: ['[', ']'], does: 'slower, faster' },
      { keys: ['L'], does: 'loop the chord, the change, or nothing' },
      { keys: ['S'], does: 'paper or stage' },
      { keys: ['?'], does: 'this help' },
    ],
  },
]
