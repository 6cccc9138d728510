/* Everything that can be done by a key or from a menu, in one table: the listener, the help, buttons and menus read it. What
   a command does, and whether it can, the place that is in view says (`useCommands`). */

/** Where a command can be given. */
export const rooms = {
  bench: 'Bench and music stand',
  line: 'Lines, on the tablature',
  ear: 'By ear',
  practice: 'Practice',
  everywhere: 'Everywhere',
} as const
export type Room = keyof typeof rooms

export interface Command {
  room: Room
  /** As KeyboardEvent.key has them, letters small; with Shift+ before named keys, Ctrl+ (or the command key), Alt+. None
      where it is given from a menu alone. */
  keys: string[]
  name: string
}

const figures = ['0', '1', '2', '3', '4', '5', '6', '7', '8', '9']

export const commands = {
  next: { room: 'bench', keys: ['ArrowRight', 'PageDown'], name: 'to the next chord; a page-turner pedal does it too' },
  previous: { room: 'bench', keys: ['ArrowLeft', 'PageUp'], name: 'to the chord before' },
  first: { room: 'bench', keys: ['Home'], name: 'first bar' },
  last: { room: 'bench', keys: ['End'], name: 'last bar' },
  higher: {
    room: 'bench',
    keys: ['ArrowUp'],
    name: 'next position up the neck, or the next region of a way to divide it',
  },
  lower: { room: 'bench', keys: ['ArrowDown'], name: 'next position down the neck' },
  position: { room: 'bench', keys: figures.slice(1, 6), name: 'that position, and again for its other octave' },
  own: { room: 'bench', keys: ['w'], name: 'a region of your own, and back' },
  labels: { room: 'bench', keys: ['n'], name: 'labels: degree, note, finger, fret, half steps to the next chord' },
  target: { room: 'bench', keys: ['t'], name: 'another target for the next change' },
  palette: { room: 'bench', keys: ['p'], name: 'another palette' },
  arrivals: { room: 'bench', keys: ['a'], name: 'dim the arrivals' },
  bends: { room: 'bench', keys: ['b'], name: 'dim the bends' },
  strum: { room: 'bench', keys: ['g'], name: 'strum the grip of this chord' },
  takeBack: { room: 'bench', keys: ['u'], name: 'undo the last choice' },
  stand: { room: 'bench', keys: ['m'], name: 'music stand, and back' },
  leave: { room: 'bench', keys: ['Escape'], name: 'leave the music stand' },

  later: { room: 'line', keys: ['ArrowRight'], name: 'to the next note or step' },
  earlier: { room: 'line', keys: ['ArrowLeft'], name: 'to the note or step before' },
  above: { room: 'line', keys: ['ArrowUp'], name: 'to the string above' },
  below: { room: 'line', keys: ['ArrowDown'], name: 'to the string below' },
  moveLater: { room: 'line', keys: ['Shift+ArrowRight'], name: 'the note comes later' },
  moveEarlier: { room: 'line', keys: ['Shift+ArrowLeft'], name: 'the note comes earlier' },
  stringAbove: { room: 'line', keys: ['Shift+ArrowUp'], name: 'the same note on the string above' },
  stringBelow: { room: 'line', keys: ['Shift+ArrowDown'], name: 'the same note on the string below' },
  fret: { room: 'line', keys: figures, name: 'write a fret' },
  unison: { room: 'line', keys: ['n'], name: 'a unison bend: the string below bent up to this note' },
  longer: { room: 'line', keys: ['+', '='], name: 'longer' },
  shorter: { room: 'line', keys: ['-'], name: 'shorter' },
  remove: { room: 'line', keys: ['Delete', 'Backspace'], name: 'take the note away' },
  hear: { room: 'line', keys: ['Enter'], name: 'hear it with the band' },
  onPaper: { room: 'line', keys: [], name: 'On paper, also for horns' },
  byMIDI: { room: 'line', keys: [], name: 'Write and play by MIDI guitar or keyboard' },
  simulate: { room: 'line', keys: [], name: 'Have a simulated player play it' },
  climb: { room: 'line', keys: [], name: 'Climb in tempo' },
  parts: { room: 'line', keys: [], name: 'Learn it in parts' },
  listed: { room: 'line', keys: [], name: 'The notes as a list' },
  fingers: { room: 'line', keys: [], name: 'Fingers beside the notes' },

  stretchLater: {
    room: 'ear',
    keys: ['ArrowRight', 'PageDown'],
    name: 'the stretch after this one; a page-turner pedal does it too',
  },
  stretchEarlier: { room: 'ear', keys: ['ArrowLeft', 'PageUp'], name: 'the stretch before this one' },
  stretchLonger: { room: 'ear', keys: ['Shift+ArrowRight'], name: 'the stretch a beat longer' },
  stretchShorter: { room: 'ear', keys: ['Shift+ArrowLeft'], name: 'the stretch a beat shorter' },
  listen: { room: 'ear', keys: ['h'], name: 'hear it: the notes of the stretch are proposed' },
  noteAfter: { room: 'ear', keys: ['.'], name: 'to the next note' },
  noteBefore: { room: 'ear', keys: [','], name: 'to the note before' },
  settle: { room: 'ear', keys: ['Enter'], name: 'the note is right; on to the next' },
  settleAll: { room: 'ear', keys: ['Shift+Enter'], name: 'all that is sure is right' },
  noteUp: { room: 'ear', keys: ['ArrowUp'], name: 'the note a half step higher' },
  noteDown: { room: 'ear', keys: ['ArrowDown'], name: 'the note a half step lower' },
  noNote: { room: 'ear', keys: ['Delete', 'Backspace'], name: 'no note here' },
  alone: { room: 'ear', keys: ['a'], name: 'the note in hand sounds alone' },
  tap: { room: 'ear', keys: ['t'], name: 'tap the beat while it plays' },
  mark: { room: 'ear', keys: ['m'], name: 'a marker here' },
  myTurn: { room: 'ear', keys: ['y'], name: 'my turn after each round, or not' },
  slowerEach: { room: 'ear', keys: ['e'], name: 'slower each round until I have it, or not' },
  against: {
    room: 'ear',
    keys: ['g'],
    name: 'my line on the guitar against the record: with it, in turn, alone, or not',
  },

  uncover: { room: 'practice', keys: ['h'], name: 'uncover the neck; it is noted, and no harm' },
  skip: { room: 'practice', keys: ['ArrowRight', 'PageDown'], name: 'the next call' },
  again: { room: 'practice', keys: ['r'], name: 'the same call again' },
  speak: { room: 'practice', keys: ['v'], name: 'calls are spoken, or not' },
  keep: { room: 'practice', keys: ['k'], name: 'keep that: the last two choruses' },
  lost: { room: 'practice', keys: ['w'], name: 'lost: the bar is told, and only the box is shown until the next top' },
  answer: { room: 'practice', keys: figures, name: 'a degree; for bends, how many half steps' },

  undo: { room: 'everywhere', keys: ['Ctrl+z'], name: 'undo' },
  redo: { room: 'everywhere', keys: ['Ctrl+y', 'Ctrl+Shift+z'], name: 'redo' },
  play: { room: 'everywhere', keys: [' '], name: 'the band plays, or stops' },
  end: { room: 'everywhere', keys: ['Shift+Enter'], name: 'this chorus is the last: the band plays its ending' },
  slower: { room: 'everywhere', keys: ['['], name: 'slower' },
  faster: { room: 'everywhere', keys: [']'], name: 'faster' },
  half: { room: 'everywhere', keys: ['\\'], name: 'half the tempo, and back' },
  loop: { room: 'everywhere', keys: ['l'], name: 'loop the chord, the change, or nothing' },
  otherLoop: { room: 'everywhere', keys: ['o'], name: 'the other of two loops, A or B' },
  missed: {
    room: 'everywhere',
    keys: ['x'],
    name: 'that one was missed: the ladder goes a step down when the pass is over',
  },
  hurts: { room: 'everywhere', keys: ['!'], name: 'it hurts: the band stops, both hands rest' },
  tell: { room: 'everywhere', keys: ['i'], name: 'tell what is in view, in a sentence' },
  theme: { room: 'everywhere', keys: ['s'], name: 'paper or stage' },
  help: { room: 'everywhere', keys: ['?'], name: 'this help' },
} satisfies Record<string, Command>

export type CommandId = keyof typeof commands

/** A press of a key, as the table writes it. On a keyboard of other letters the place of a key counts. */
export function pressed(
  e: Pick<KeyboardEvent, 'key' | 'shiftKey' | 'ctrlKey' | 'metaKey' | 'altKey'> & { code?: string },
): string {
  const place = /^Key([A-Z])$/.exec(e.code ?? '')?.[1]
  const key = e.key.length === 1 && e.key > '\u007f' && place ? place : e.key
  const named = key.length > 1
  const held = e.ctrlKey || e.metaKey
  return [held && 'Ctrl+', e.altKey && 'Alt+', e.shiftKey && (named || held) && 'Shift+', named ? key : key.toLowerCase()] // prettier-ignore
    .filter(Boolean)
    .join('')
}

const faces: Record<string, string> = { ' ': 'space', ArrowLeft: '←', ArrowRight: '→', ArrowUp: '↑', ArrowDown: '↓' }
const spoken: Record<string, string> = { '←': 'left', '→': 'right', '↑': 'up', '↓': 'down' }

/** A key as it is written on a keyboard. */
export const face = (key: string) =>
  key
    .split(/(?<=.)\+/)
    .map((k) => faces[k] ?? (k.length === 1 ? k.toUpperCase() : k))
    .join(' ')
/** And as it is read out. */
export const aloud = (key: string) => face(key).replace(/[←→↑↓]/g, (a) => spoken[a]!)
