/* An exercise and what is asked of it: only what acts on it is asked, and only that is sent. */
import type { Catalogue, DrillBody } from '../api/client'

export type Ask = Catalogue['choices'][number]
/** What is asked for, by the names of the choices; one that is not there is as usual. */
export type Asked = Record<string, string | number | boolean>

/** Stands for what is usual in a list, since a list cannot hold an empty choice. */
export const usual = 'usual'

/** The entries of a list, what is usual first. */
export const entries = (ask: Ask) => ask.options.map((o) => ({ id: o.id || usual, name: o.name }))

/** What a list stands at; a value that it does not know is as usual. */
export function standing(ask: Ask, asked: Asked) {
  const now = String(asked[ask.id] ?? '')
  return entries(ask).find((o) => o.id === now)?.id ?? entries(ask)[0]?.id ?? usual
}

const numbers = (ask: Ask) => ask.options.every((o) => /^\d+$/.test(o.id))

/** What of a choice is sent; nothing where it is as usual. */
function sent(ask: Ask, asked: Asked): string | number | boolean | number[] | undefined {
  const now = asked[ask.id]
  switch (ask.kind) {
    case 'switch':
      return now === true || undefined
    case 'number':
      return Number(now) || undefined
    case 'steps': {
      const steps = String(now ?? '').match(/\d+/g)
      return steps ? steps.map(Number).slice(0, 16) : undefined
    }
    default: {
      const id = standing(ask, asked)
      if (id === entries(ask)[0]?.id) return undefined
      return numbers(ask) ? Number(id) : id
    }
  }
}

/** The choices of an exercise, in their order: those that act, after what they need. */
export function asksOf(catalogue: Pick<Catalogue, 'drills' | 'choices'>, drill: string, asked: Asked): Ask[] {
  const offers = catalogue.drills.find((d) => d.id === drill)?.offers ?? []
  const offered = catalogue.choices.filter((c) => offers.includes(c.id))
  return offered.filter((c) => !c.needs || offered.some((n) => n.id === c.needs && sent(n, asked) !== undefined))
}

/** The exercise as it is asked for. */
export function taskOf(catalogue: Pick<Catalogue, 'drills' | 'choices'>, drill: string, pace: string, asked: Asked) {
  const task: Record<string, unknown> = { drill, pace }
  for (const ask of asksOf(catalogue, drill, asked)) task[ask.id] = sent(ask, asked)
  return task as unknown as DrillBody
}
