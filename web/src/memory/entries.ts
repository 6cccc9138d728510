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
let send: Send | undefined
let timer: ReturnType<typeof setTimeout> | undefined

/** Notes with what is sent; what waits from earlier is sent first. */
export function openEntries(by: Send) {
  send = by
  return drain()
}

/** Who waits for the number of a line; whichever tab sends it tells the others. */
const answers = new Map<string, (row: unknown) => void>()
const channel = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('undaris-noted')
function told(ref: string, row: unknown) {
  answers.get(ref)?.(row)
  answers.delete(ref)
}
channel?.addEventListener('message', (e: MessageEvent<{ ref: string; row: unknown }>) => told(e.data.ref, e.data.row))

let last = 0

/** Notes a line. What it answers comes with its number as soon as it is noted, also much later. */
export async function note(method: Entry['method'], path: string, body: Record<string, unknown>) {
  const { database, player } = here
  const at = (last = Math.max(Date.now(), last + 0.001)) // in the order in which they came
  const entry: Entry = { ref: crypto.randomUUID(), database, player, method, path, body, at }
  const noted = new Promise<unknown>((done) => answers.set(entry.ref, done))
  await keep({ put: { entries: [entry] } })
  void drain()
  return noted
}

let draining = false
let more = false
/** Sends what waits, and what came meanwhile. */
async function drain() {
  clearTimeout(timer)
  more = draining
  if (draining) return
  draining = true
  try {
    await sendAll()
  } finally {
    draining = false
  }
  if (more) void drain()
}

async function sendAll() {
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
        const row = 'row' in sent ? sent.row : undefined
        told(e.ref, row)
        channel?.postMessage({ ref: e.ref, row })
        await keep({ drop: { entries: [e.ref] } })
      } catch {
        break // later
      }
    }
  })
  const waits = (await all('entries')).some((e) => e.database === here.database)
  if (waits) timer = setTimeout(() => void drain(), again)
}
