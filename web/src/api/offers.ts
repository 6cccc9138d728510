/* Work that no tab has in hand any more. What was left of a thing that is as it was is sent by itself; what met something
   else waits until the thing is opened; what was made in other data, or with another thing of the same number, is offered as
   a new one. */
import { canonical } from '../document/canonical'
import { apply, apart, diff } from '../document/steps'
import { here } from '../memory/here'
import { leftOf, letGo, settle, sinceSent, thingOf, type Offer } from '../memory/unsent'
import { alone } from '../memory/tabs'
import {
  answer,
  api,
  type Chart,
  type ChartBody,
  type LickBody,
  type LineBody,
  type Plan,
  type RecordingBody,
  type SetBody,
} from './client'
import { chartBody } from './queries'
import { lickBody, lineBody } from './kept'
import { recordingBody } from './recordingBody'
import { setBody } from './sets'
import { tag } from './keeper'
import { beside } from './questions'

/** What is edited, by where it is: how it is read and sent, made anew, and shown. */
const kinds = {
  charts: {
    word: 'the chart',
    place: (id: number) => ({ name: 'edit', params: { id } }),
    read: (id: number) => answer(api.GET('/api/charts/{id}', { params: { path: { id } } })),
    part: chartBody,
    send: (id: number, body: object, match: string) =>
      answer(api.PUT('/api/charts/{id}', { params: { path: { id }, header: { 'If-Match': match } }, body: body as ChartBody })), // prettier-ignore
    make: (body: object) => answer(api.POST('/api/charts', { body: body as ChartBody })),
  },
  licks: {
    word: 'the lick',
    place: (id: number) => ({ name: 'lick', params: { id } }),
    read: (id: number) => answer(api.GET('/api/licks/{id}', { params: { path: { id } } })),
    part: lickBody,
    send: (id: number, body: object, match: string) =>
      answer(api.PUT('/api/licks/{id}', { params: { path: { id }, header: { 'If-Match': match } }, body: body as LickBody })), // prettier-ignore
    make: (body: object) => answer(api.POST('/api/licks', { body: body as LickBody })),
  },
  lines: {
    word: 'the line',
    place: (id: number) => ({ name: 'line', params: { id } }),
    read: (id: number) => answer(api.GET('/api/lines/{id}', { params: { path: { id } } })),
    part: lineBody,
    send: (id: number, body: object, match: string) =>
      answer(api.PUT('/api/lines/{id}', { params: { path: { id }, header: { 'If-Match': match } }, body: body as LineBody })), // prettier-ignore
    make: (body: object) => answer(api.POST('/api/lines', { body: body as LineBody })),
  },
  sets: {
    word: 'the set',
    place: (id: number) => ({ name: 'set', params: { id } }),
    read: (id: number) => answer(api.GET('/api/sets/{id}', { params: { path: { id } } })),
    part: setBody,
    send: (id: number, body: object, match: string) =>
      answer(api.PUT('/api/sets/{id}', { params: { path: { id }, header: { 'If-Match': match } }, body: body as SetBody })), // prettier-ignore
    make: (body: object) => answer(api.POST('/api/sets', { body: body as SetBody })),
  },
  recordings: {
    word: 'what was found in the recording',
    place: (id: number) => ({ name: 'recording', params: { id } }),
    read: (id: number) => answer(api.GET('/api/recordings/{id}', { params: { path: { id } } })),
    part: recordingBody,
    send: (id: number, body: object, match: string) =>
      answer(api.PUT('/api/recordings/{id}', { params: { path: { id }, header: { 'If-Match': match } }, body: body as RecordingBody })), // prettier-ignore
    make: (body: object) => answer(api.POST('/api/recordings', { body: body as RecordingBody })),
  },
  plan: {
    word: 'what you decided about the chart',
    place: (id: number) => ({ name: 'bench', params: { id } }),
    read: (id: number) => answer(api.GET('/api/charts/{id}', { params: { path: { id } } })),
    part: (c: unknown) => (c as Chart).plan,
    send: (id: number, body: object, match: string) =>
      answer(api.PUT('/api/charts/{id}/plan', { params: { path: { id }, header: { 'If-Match': match } }, body: body as Plan })), // prettier-ignore
    /** A plan is of a chart: both are made anew. */
    async make(body: object, of?: unknown) {
      const chart = of as ChartBody
      const made = await answer(api.POST('/api/charts', { body: { ...chart, title: beside(chart.title) } }))
      const match = { 'If-Match': tag(made.version) }
      return answer(api.PUT('/api/charts/{id}/plan', { params: { path: { id: made.id }, header: match }, body: body as Plan })) // prettier-ignore
    },
  },
}

/** Which kind of thing a path is of, and its number; 0 for one that is not made yet. */
export function kindOf(path: string) {
  const [, , name, number, plan] = path.split('/')
  const kind = (plan === 'plan' ? 'plan' : name) as keyof typeof kinds
  return kinds[kind] && { ...kinds[kind], id: Number(number) || 0 }
}

/** Whether it was made with what is open now, and can be taken up where it is. */
export const isHere = ({ slot }: Offer) => slot.database === here.database

/** Whether a new thing can be made of it: a plan needs the chart that it is of. */
export const canBeNew = ({ slot }: Offer) => {
  const kind = kindOf(slot.path)
  return !!kind && (kind.word !== kinds.plan.word || !!slot.beside)
}

/** Makes a new thing of it. */
export async function asNew({ slot, mine }: Offer) {
  const kind = kindOf(slot.path)
  if (!kind) throw new Error('this program knows nothing of what was made here')
  const title = (mine as { title?: string }).title
  const made = await kind.make(title && slot.version ? { ...mine, title: beside(title) } : mine, slot.beside)
  await letGo(slot.id)
  return { ...kind.place(made.id) }
}

/** Sends what was left of things that nobody has changed meanwhile; the rest waits for its player. */
export const sendLeft = (list: Offer[]) =>
  alone('left', async () => {
    for (const { slot } of list.filter((o) => isHere(o) && o.slot.version)) {
      const kind = kindOf(slot.path)
      if (!kind?.id) continue
      try {
        const kept = (await kind.read(kind.id)) as { version: string }
        if (thingOf(kept.version) !== thingOf(slot.version)) continue
        const there = kind.part(kept as never) as object
        const [one] = (await leftOf(slot.path, kept.version)).filter((l) => l.slot.id === slot.id)
        if (!one) continue
        const left = sinceSent(one, there)
        const changes = diff(left.ground, left.mine)
        if (canonical(left.ground) !== canonical(there) && !apart(diff(left.ground, there), changes)) continue
        const whole = apply(changes, there)
        if (changes.length) await kind.send(kind.id, whole, tag(kept.version))
        await settle([one])
      } catch {
        continue // it goes on waiting
      }
    }
  })
