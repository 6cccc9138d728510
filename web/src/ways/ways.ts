/* The ways in, for who is new here: what each step says, and what is pressed. Each can be left at any time and taken up. */
import { engrave } from '../music/text'
import { placed, type Aim } from './aim'

export const wayIds = ['see', 'land', 'say'] as const
export type WayId = (typeof wayIds)[number]

/** What a step waits for, besides its button. */
export type Met = 'landed' | 'answered'

/** What a button does: see useWay. */
export type Deed = 'play' | 'hear' | 'bench' | 'guitar' | 'keys' | 'whole' | 'roots' | 'thirds' | 'next' | WayId

export interface Step {
  /** a name, where another step goes to it */
  id?: string
  /** What is done as it comes, however it is come to. */
  first?: Deed
  says: (a: Aim) => string
  buttons: { name: string; does: Deed }[]
  /** Goes on by itself once this was met so many times. */
  waits?: { for: Met; times: number }
}

const change = (a: Aim) =>
  a.from === a.to ? `${engrave(a.to)} goes all the way` : `In bar ${a.bar} ${engrave(a.from)} becomes ${engrave(a.to)}`
const when = (a: Aim) => (a.from === a.to ? 'at the top' : `when ${engrave(a.to)} comes`)

export const ways: Record<WayId, { name: string; about: string; steps: Step[] }> = {
  see: {
    name: 'See it',
    about: 'the chords of a blues on the neck, and where each leads',
    steps: [
      {
        says: () => 'The neck shows the chord of now: its root, third, fifth and seventh. Play, and watch it change.',
        buttons: [{ name: 'Play', does: 'play' }],
      },
      {
        says: (a) => `Hollow marks are the next chord. ${change(a)}: look where its ${a.name} lies.`,
        buttons: [{ name: 'Show me that change', does: 'bench' }],
      },
      {
        says: (a) => `${engrave(a.note)}, ${placed(a)}, is the ${a.name} of ${engrave(a.to)}. Hear it come.`,
        buttons: [{ name: 'Hear it', does: 'hear' }],
      },
      {
        says: () => 'That is all there is to see. Now be on it when the chord comes.',
        buttons: [{ name: 'Land it', does: 'land' }],
      },
    ],
  },
  land: {
    name: 'Land it',
    about: 'one change goes round until you are on its third when it comes',
    steps: [
      {
        says: (a) => `${change(a)}. Its ${a.name} is ${engrave(a.note)}: ${placed(a)}. Hear it come.`,
        buttons: [{ name: 'Hear it', does: 'hear' }],
      },
      {
        says: (a) => `Now you: these bars go round. Be on ${engrave(a.note)} ${when(a)}.`,
        buttons: [
          { name: 'With my instrument', does: 'guitar' },
          { name: 'With the keyboard', does: 'keys' },
        ],
      },
      {
        id: 'playing',
        says: (a) => `${engrave(a.note)} ${when(a)}: ${placed(a)}${a.key ? `, the key ${a.key} on the keyboard` : ''}.`,
        buttons: [
          { name: 'With the keyboard', does: 'keys' },
          { name: 'Say it instead', does: 'say' },
        ],
        waits: { for: 'landed', times: 1 },
      },
      {
        says: (a) => `Landed: ${engrave(a.note)}, the ${a.name} of ${engrave(a.to)}. Every change has such a tone.`,
        buttons: [
          { name: 'The whole form', does: 'whole' },
          { name: 'Say it', does: 'say' },
        ],
      },
    ],
  },
  say: {
    name: 'Say it',
    about: 'calls: a tone of a chord is asked for, before you need it',
    steps: [
      {
        says: () => 'A call asks for a tone of a chord of this blues. Say it aloud, then answer; the roots first.',
        buttons: [{ name: 'Ask me', does: 'next' }],
      },
      {
        first: 'roots',
        says: () => 'Three times: say where the roots of that chord lie, then press them.',
        buttons: [{ name: 'I know the roots', does: 'next' }],
        waits: { for: 'answered', times: 3 },
      },
      {
        first: 'thirds',
        says: () => 'Now the thirds, the tones that tell most of a chord. Three times.',
        buttons: [{ name: 'I know the thirds', does: 'next' }],
        waits: { for: 'answered', times: 3 },
      },
      {
        says: (a) =>
          `You know where the ${a.name} of ${engrave(a.to)} lies. Calls ask more as they go well. Now land it.`,
        buttons: [{ name: 'Land it', does: 'land' }],
      },
    ],
  },
}
