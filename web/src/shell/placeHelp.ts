/* What one does in each place, in the order that players work: the first of Help. */

/** By the name of the place, of Practice by its room. */
export const placeHelp: Record<string, { name: string; steps: string[] }> = {
  bench: {
    name: 'On the Bench',
    steps: [
      'Step through the bars with ← and →, or press Play: filled marks are the chord of now, hollow ones the next.',
      'Choose a position with 1 to 5, or drag the edges of the lit frets.',
      'At a change look at the crossings beside the form: the shortest ways from a tone of this chord to one of the next. Hear one.',
      'Press Land it: those bars go round in this place, and you are told whether you were there.',
      'Below are the run of the chord with its fingers, the pentatonic that blends with it, and the wave: the whole thread of targets.',
    ],
  },
  stand: {
    name: 'On the music stand',
    steps: [
      'Read the chord, the next one and the neck from a distance; the band turns the bars.',
      'Without the band, ← and → or a page-turner step through them. Escape goes back to the Bench.',
    ],
  },
  atlas: {
    name: 'In the Atlas',
    steps: [
      'See every chord of the chart in every position at once.',
      'Choose what the necks show, print them, or fill in blank ones and have them checked.',
    ],
  },
  paper: {
    name: 'On paper',
    steps: ['Choose what goes on the page: the form, the thread, the neck.', 'Print it, or keep it as a picture.'],
  },
  'line-paper': {
    name: 'A line on paper',
    steps: ['Choose the staff, the tablature or both, for guitar or for horns, then print.'],
  },
  recordings: {
    name: 'By ear',
    steps: [
      'Open a recording of your own, or drop the file anywhere: sound, or a video. It stays on this machine.',
      'Or record here what you play.',
    ],
  },
  recording: {
    name: 'A recording',
    steps: [
      'Drag over the sound to take two bars in hand; they go round. ← and → go to the next ones.',
      'Play them as slowly as you want, at the same pitch. Slower each round until you have it, or leave yourself a turn after it.',
      'Hear it: the notes are proposed as guesses, on rows and on the neck. Press one: is it right? Enter says so, ↑ and ↓ correct it.',
      'Fix a place on the neck, and the whole phrase is fingered anew around it.',
      'Set your line against the record, then make a lick or a line of it: it leads back to where it was heard.',
    ],
  },
  charts: {
    name: 'Charts',
    steps: [
      'Make a chart from a form and a key, or open a file.',
      'Open one to work on it on the Bench; its pencil changes chords, key, tempo and how it begins and ends.',
      'Put charts into a set for an evening; from there Practice prepares it, with its day.',
    ],
  },
  new: {
    name: 'A new chart',
    steps: [
      'Choose a form, or type the chords: bars between strokes, % for the bar before.',
      'Choose the key, the feel and the tempo, then Make chart.',
    ],
  },
  edit: {
    name: 'A chart',
    steps: [
      'Change chords in the text or on the tiles; what cannot be read is shown where it stands.',
      'A form or a key chosen here asks what becomes of the chords that stand.',
    ],
  },
  sets: {
    name: 'Sets',
    steps: ['Make a set for an evening.', 'Open it to put charts into it and to play it through.'],
  },
  set: {
    name: 'A set',
    steps: [
      'Put charts in, in the order they are played.',
      'Prepare it: say the day, and the plans until then are made of its changes, the weakest first.',
      'Play it through: the band goes from chart to chart.',
    ],
  },
  licks: {
    name: 'Licks',
    steps: [
      'Find a lick by what it is over, what it leans on and where it lands; or type one.',
      'Open it to hear it, to learn it, and to send it through the changes of a chart.',
    ],
  },
  lick: {
    name: 'A lick',
    steps: [
      'Hear it, then Learn it: part by part, each at its own tempo.',
      'Try it over another chord: by shape, by degree, at other places on the neck.',
      'Send it through the changes as a line, or Land it: over the band, turned at every change.',
    ],
  },
  lines: {
    name: 'Lines',
    steps: [
      'Begin a line over a chart: by hand, from a lick, as an exercise, or written by what you ask for.',
      'Open one to hear it, to change it and to learn it.',
    ],
  },
  line: {
    name: 'A line',
    steps: [
      'Type frets on the tablature, or press the neck; letters say how a note is played.',
      'Look at what lands and what does not; have it led into, closed or mended.',
      'Press Land it at a note: its part goes round, and you are heard and judged.',
    ],
  },
  today: {
    name: 'Today',
    steps: [
      'Say how many minutes you have, and the date of an evening if there is one.',
      'Read why each thing is in the plan; swap, shorten or pin what you like, then begin.',
      'At the end see what changed tonight, and what comes next.',
    ],
  },
  calls: {
    name: 'Calls',
    steps: [
      'Say the answer aloud, then give it: by name, on the neck, or by playing.',
      'What goes well leads to more; choose above what is asked if you want it narrower.',
    ],
  },
  changes: {
    name: 'Over the changes',
    steps: [
      'Choose what is asked of you and where on the neck; turn the ear, MIDI or Keys on.',
      'Press Play: every change is told as it is met. Press a chord to loop it alone.',
      'After a chorus read what was good and what to try; keep what you like as a take.',
    ],
  },
  takes: {
    name: 'Takes',
    steps: ['Hear a take beside the band, from any bar.', 'Compare two, or make one a line.'],
  },
  log: {
    name: 'The log',
    steps: [
      'Press any spot: what is behind it is told, line by line.',
      'Go from there to practising it, or take a line out that should not count.',
    ],
  },
  lessons: {
    name: 'Lessons',
    steps: [
      'As a teacher choose charts, licks, lines, exercises and aims, and save them as one file.',
      'As a pupil open that file: the aims lead to practising them; return the results as a file.',
    ],
  },
}

export const helpOf = (name: unknown, room: unknown) =>
  placeHelp[name === 'practice' ? String(room || 'calls') : String(name)]
