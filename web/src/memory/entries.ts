/* Lines of the log wait here until they are noted: each once, of whom and when it was. */
import { ref } from 'vue'
import { all, keep, type Entry } from './browser'
import { here } from './here'
import { alone } from './tabs'

/** What becomes of a line that is sent: its number, or why it will never be taken. */
export type Sent = { row: unknown } | { refused: string }
type Send = (e: Entry) => Promise<Sent>

/** How many may wait; the oldest go first, and that is said. */
export const most = 2000
const again = 5000

export const trouble = ref('')
/** How many wait. */
export const waitingEntries = ref(0)
let send: Send | undefined
let timer: ReturnType<typeof setTimeout> | undefined

/** Notes with what is sent; what waits from earlier is sent first. */
export function openEntries(by: Send) {
  send = by
  return drain()
}

const answers = new Map<string, (row: unknown) => void>()

/** Notes a line. What it answers comes with its number as soon as it is noted, also much later. */
export async function note(method: Entry['method'], path: string, body: Record<string, unknown>) {
  const { database, player } = here
  const at = Date.now()
  const entry: Entry = { ref: crypto.randomUUID(), database, player, method, path, body, at }
  const noted = new Promise<unknown>((done) => answers.set(entry.ref, done))
  await keep({ put: { entries: [entry] } })
  void drain()
  return noted
}

async function drain() {
  clearTimeout(timer)
  await alone('entries', async () => {
    const list = (await all('entries')).sort((a, b) => a.at - b.at)
    if (list.length > most) {
      const old = list.splice(0, list.length - most)
      await keep({ drop: { entries: old.map((e) => e.ref) } })
      trouble.value = `${old.length} of what you practised could not be noted for so long that it was let go.`
    }
    for (const e of list) {
      if (e.database !== here.database || !send) continue
      try {
        const sent = await send(e)
        if ('refused' in sent) trouble.value = `What you practised could not be noted: ${sent.refused}`
        answers.get(e.ref)?.('row' in sent ? sent.row : undefined)
        answers.delete(e.ref)
        await keep({ drop: { entries: [e.ref] } })
      } catch {
        break // later
      }
    }
  })
  const mine = (await all('entries')).filter((e) => e.database === here.database)
  waitingEntries.value = mine.length
  if (mine.length) timer = setTimeout(() => void drain(), again)
}
