/* What only the player can decide about work that met something else. One question stands open at a time, drawn by
   ConflictDialog. */
import { ref } from 'vue'

/** Keep mine, take what is there, or keep both. Of what was deleted: bring it back, let mine go, or keep mine as new. */
export type Decision = 'mine' | 'theirs' | 'both'
export interface Question {
  /** it was changed elsewhere · deleted elsewhere · an earlier visit left work that meets such a change */
  kind: 'changed' | 'gone' | 'left'
  what: string
  /** in words, where that can be said */
  differs?: string
  /** mine can be kept beside theirs */
  both?: boolean
}

export const question = ref<Question & { decide: (keep: Decision) => void }>()
let turn: Promise<unknown> = Promise.resolve()

/** Asks after what is being asked already. */
export function askPlayer(asked: Question): Promise<Decision> {
  const answered = turn.then(
    () =>
      new Promise<Decision>((resolve) => {
        question.value = {
          ...asked,
          decide: (keep) => {
            question.value = undefined
            resolve(keep)
          },
        }
      }),
  )
  turn = answered
  return answered
}

/** What mine is called beside theirs. */
export const beside = (title: string) => `${title.slice(0, 110)} (mine)`
