/* This tab among others. Each has a name of its own and holds a lock of that name as long as it lives, so that the others
   know whose work has been left behind. */

/** A name that no other tab has, also not one that was copied from this. */
export const thisTab = crypto.randomUUID()

/** Other names are other browsers, in tests. */
let name = 'undaris'
const lockOf = (tab: string) => `${name}-tab ${tab}`
const locks = () => (typeof navigator === 'undefined' ? undefined : navigator.locks)

/** Ends this tab's lock; held on to, since a promise that nobody can settle any more may be swept away, and its lock with it. */
export let release: () => void = () => undefined

/** Lives until it is closed. */
export const live = (as = name) =>
  new Promise<void>((held) => {
    name = as
    if (!locks()) return held()
    void locks()!
      .request(lockOf(thisTab), () => {
        held()
        return new Promise<void>((end) => (release = end))
      })
      .catch(held)
  })

/** The tabs that live. Where that cannot be known, this one alone. */
export async function living(): Promise<Set<string>> {
  const held = (await locks()?.query())?.held ?? []
  const names = held.map((l) => l.name ?? '').filter((n) => n.startsWith(lockOf('')))
  return new Set([thisTab, ...names.map((n) => n.slice(lockOf('').length))])
}

/** One tab at a time does it; who comes second does not. */
export async function alone(what: string, deed: () => Promise<unknown>) {
  const all = locks()
  if (!all) return void (await deed())
  await all.request(`${name} ${what}`, { ifAvailable: true }, async (lock) => void (lock && (await deed())))
}
