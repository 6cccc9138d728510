import createClient from 'openapi-fetch'
import { answeredBy, here } from '../memory/here'
import { answersFirst } from './first'
import type { components, paths } from './schema'

/** Which database is meant, and which one answered. */
const identity = 'Undaris-Database'

export const api = createClient<paths>({ baseUrl: '/', fetch: answersFirst((input) => fetch(input)) })
api.use({
  onRequest({ request }) {
    if (here.database) request.headers.set(identity, here.database)
    return request
  },
  onResponse({ response }) {
    answeredBy(response.headers.get(identity))
  },
})

/** Asks for what is no JSON, of the same database. */
export async function fetchOf(path: string, how: RequestInit = {}) {
  const headers = new Headers(how.headers)
  if (here.database) headers.set(identity, here.database)
  const response = await fetch(path, { ...how, headers })
  answeredBy(response.headers.get(identity))
  return response
}

type Schemas = components['schemas']
export type Chart = Schemas['Chart']
export type ChartBody = Schemas['ChartBody']
export type ChartRow = Schemas['ChartRow']
export type ChartMap = Schemas['Map']
export type Chord = Schemas['Chord']
export type Bar = Schemas['Bar']
export type Sheet = Schemas['Sheet']
export type Note = Schemas['Note']
export type Run = Schemas['Run']
export type Position = Schemas['Position']
export type Instrument = Schemas['Instrument']
export type Player = Schemas['Player']
export type PlayerVersion = Schemas['PlayerVersion']
export type Plan = Schemas['Plan']
export type Reading = Schemas['Reading']
export type ReadingRequest = Schemas['ReadingRequest']
export type Problem = Schemas['Problem']
export type Move = Schemas['Move']
export type Blend = Schemas['Blend']
export type Target = Schemas['Target']
export type Thread = Schemas['Thread']
export type Place = Schemas['Place']
export type PlaceAbout = Schemas['PlaceAbout']
export type PlaceReading = Schemas['PlaceReading']
export type Catalogue = Schemas['Catalogue']
export type Brought = Schemas['Brought']
export type Score = Schemas['Score']
export type PlayedSet = Schemas['Set']
export type SetBody = Schemas['SetBody']
export type Recording = Schemas['Recording']
export type RecordingBody = Schemas['RecordingBody']
export type RecordingRow = Schemas['RecordingRow']
export type Hearing = Schemas['Hearing']
export type NoteByEar = Schemas['NoteByEar']
export type TurnByEar = Schemas['TurnByEar']
export type HeardStretch = Schemas['Heard']
export type PulseGuess = Schemas['PulseGuess']
export type ChordsByEar = Schemas['ChordsByEar']
export type Measure = Schemas['Measure']
export type Stroke = Schemas['Stroke']
export type Written = Schemas['Written']
export type Tones = Schemas['Tones']
export type Study = Schemas['Study']
export type LineBody = Schemas['LineBody']
export type Line = Schemas['Line']
export type LineNote = Schemas['LineNote']
export type WishBody = Schemas['WishBody']
export type DrillBody = Schemas['DrillBody']
export type Fixes = Schemas['Fixes']
export type Lick = Schemas['Lick']
export type LickRow = Schemas['LickRow']
export type LineRow = Schemas['LineRow']
export type LickBody = Schemas['LickBody']
export type Landing = Schemas['Landing']
export type Call = Schemas['Call']
export type CallWish = Schemas['CallWish']
export type HeardNote = Schemas['HeardNote']
export type TakeVerdicts = Schemas['Take']
export type PracticeGround = Schemas['PracticeGround']
export type CallLog = Schemas['CallLog']
export type LogRow = Schemas['LogRow']
export type TakeLog = Schemas['TakeLog']
export type RungLog = Schemas['RungLog']
export type ByEarLog = Schemas['ByEarLog']
export type Lesson = Schemas['Lesson']
export type LessonBody = Schemas['LessonBody']
export type LessonAim = Schemas['LessonAim']
export type LessonResults = Schemas['LessonResults']
export type AimBody = Schemas['AimBody']
export type AssignedExercise = Schemas['AssignedExercise']
export type LogMaps = Schemas['LogMaps']
export type Today = Schemas['Today']
export type TodayItem = Schemas['TodayItem']
export type FreeTake = Schemas['FreeTake']
export type PlayedSpan = Schemas['PlayedSpan']
export type Holding = Schemas['Holding']
export type Hold = Schemas['Hold']
export type FreeLanding = Schemas['FreeLanding']
export type TakeBody = Schemas['TakeBody']
export type KeptTake = Schemas['KeptTake']
export type TakeRow = Schemas['TakeRow']
export type LeadNote = Schemas['LeadNote']
export type Role = NonNullable<Plan['targets']>[number]

/** A refusal by the server, with what was wrong at which field. */
export class Refused extends Error {
  constructor(
    message: string,
    readonly fields: Record<string, string>,
    readonly status: number,
  ) {
    super(message)
  }
}

/** A refusal of a change of an old version, with what is there now. */
export class Changed extends Refused {
  constructor(
    message: string,
    readonly current: unknown,
  ) {
    super(message, {}, 412)
  }
}

/** Another database is open than this page has in hand: nothing is wrong with what was asked. */
export class Turned extends Refused {}

/** Whether it may well be done another time, as it is. */
export const passing = (e: unknown) =>
  !(e instanceof Refused) || e instanceof Turned || [0, 408, 429, 499].includes(e.status) || e.status >= 500

interface Document {
  detail?: string
  status?: number
  current?: unknown
  errors?: { message?: string; location?: string }[]
}

/** Unwraps an answer, or throws what the server or the lack of one says. */
export async function answer<T>(request: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let result
  try {
    result = await request
  } catch {
    throw new Refused(
      'Undaris does not answer. Is it still running? Start it again; what you typed is still here.',
      {},
      0,
    )
  }
  if (result.error !== undefined || !result.response.ok) {
    const document = (result.error ?? {}) as Document
    const fields: Record<string, string> = {}
    for (const e of document.errors ?? []) {
      const field = (e.location ?? '').split('.').pop() ?? ''
      fields[field] ??= e.message ?? ''
    }
    if (result.response.status === 412 && document.current) throw new Changed(document.detail ?? '', document.current)
    const how = result.response.status === 412 ? Turned : Refused
    throw new how(document.detail || 'Undaris could not do that.', fields, result.response.status)
  }
  return result.data as T
}
