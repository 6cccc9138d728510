import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { beforeEach, describe, expect, it, vi } from 'vitest'

type Thing = { id: number; version: string } & Record<string, unknown>
/* A server of one database: things by their paths. */
const things = new Map<string, Thing>()
const asked: string[] = []
let made = 0
const json = (body: unknown, status = 200) =>
  new Response(JSON.stringify(body), {
    status,
    headers: { 'content-type': 'application/json', 'Undaris-Database': 'db' },
  })
async function server(request: Request) {
  const path = new URL(request.url).pathname
  asked.push(`${request.method} ${path}`)
  const body = request.method === 'GET' ? undefined : ((await request.json()) as Record<string, unknown>)
  if (request.method === 'POST') {
    const thing = { id: ++made, version: `db.n${made}.1`, ...body }
    things.set(`${path}/${made}`, thing)
    return json(thing, 201)
  }
  const plan = path.endsWith('/plan')
  const thing = things.get(plan ? path.slice(0, -5) : path)
  if (!thing) return json({ detail: 'there is no such thing' }, 404)
  if (request.method === 'GET') return json(thing)
  if (request.headers.get('If-Match') !== `"${thing.version}"`) return json({ detail: 'changed', current: thing }, 412)
  Object.assign(thing, plan ? { plan: body } : body, { version: `${thing.version}'` })
  return json(thing)
}

class Asked extends Request {
  constructor(url: string, init?: RequestInit) {
    super(new URL(url, 'http://127.0.0.1'), init)
  }
}

const bodies: Record<string, Record<string, unknown>> = {
  '/api/charts/1': { title: 'Chart', key: 'C', text: '| C7 |' },
  '/api/licks/1': { title: 'Lick', chord: '7', notes: [] },
  '/api/lines/1': { title: 'Line', text: '| C7 |', notes: [{ id: 1, start: 0, length: 480, string: 1, fret: 5 }] },
  '/api/sets/1': { title: 'Set', items: [] },
}
async function browser() {
  vi.resetModules()
  vi.stubGlobal('fetch', (r: Request) => server(r))
  // A page asks for paths of its own address; here there is none.
  vi.stubGlobal('Request', Asked)
  const memory = await import('../memory/browser')
  const { here } = await import('../memory/here')
  const unsent = await import('../memory/unsent')
  const offers = await import('./offers')
  await memory.openMemory()
  here.database = 'db'
  /** Work that a tab has left. */
  async function leave(path: string, version: string, ground: object, mine: object, beside?: unknown) {
    const slot = unsent.useSlot(path)
    await slot.hold({ path, title: 'left', version, ground, beside }, ground)
    await slot.hold({ path, title: 'left', version, ground, beside }, mine)
    slot.leave()
    await unsent.look()
  }
  return { ...unsent, ...offers, leave }
}

describe('work that nobody has in hand', () => {
  beforeEach(() => {
    vi.stubGlobal('indexedDB', new IDBFactory())
    things.clear()
    asked.length = made = 0
    for (const [path, body] of Object.entries(bodies))
      things.set(path, { id: 1, version: `db.${path}.1`, plan: {}, ...body })
  })

  it.each(Object.keys(bodies))('is sent by itself where nobody changed it since: %s', async (path) => {
    const b = await browser()
    await b.leave(path, `db.${path}.1`, bodies[path]!, { ...bodies[path], title: 'Done' })
    await b.sendLeft(b.offers.value)
    expect(things.get(path)!.title).toBe('Done')
    await b.look()
    expect(b.offers.value).toEqual([])
  })

  it('is joined with what was changed elsewhere, and waits where the same was', async () => {
    for (const [theirs, waits] of [
      [{ text: '| F7 |' }, 0],
      [{ title: 'Theirs' }, 1],
    ] as const) {
      // prettier-ignore
      things.set('/api/charts/1', { id: 1, version: 'db.c.2', plan: {}, ...bodies['/api/charts/1'], ...theirs })
      const b = await browser()
      await b.leave('/api/charts/1', 'db.c.1', bodies['/api/charts/1']!, { ...bodies['/api/charts/1'], title: 'Mine' })
      await b.sendLeft(b.offers.value)
      await b.look()
      expect(b.offers.value.length).toBe(waits)
      expect(things.get('/api/charts/1')).toMatchObject(waits ? theirs : { title: 'Mine', ...theirs })
    }
  })

  it('of another database, or of another thing of the same number, is never sent', async () => {
    const b = await browser()
    await b.leave('/api/lines/1', 'old.x.1', bodies['/api/lines/1']!, { ...bodies['/api/lines/1'], title: 'Mine' })
    await b.leave('/api/lines/1', 'db.other.1', bodies['/api/lines/1']!, {
      ...bodies['/api/lines/1'],
      title: 'Mine too',
    })
    await b.sendLeft(b.offers.value)
    expect(asked.filter((a) => !a.startsWith('GET'))).toEqual([])
    expect(b.offers.value.map(b.isHere)).toEqual([false, true])
  })

  it.each([...Object.keys(bodies), '/api/charts/1/plan', '/api/charts/new'])(
    'becomes a new thing: %s',
    async (path) => {
      const b = await browser()
      const plan = path.endsWith('/plan')
      const mine = plan ? { nearest: true } : { ...(bodies[path] ?? bodies['/api/charts/1']), title: 'Mine' }
      const fresh = path.endsWith('/new')
      await b.leave(path, fresh ? '' : 'old.x.1', {}, mine, plan ? bodies['/api/charts/1'] : undefined)
      const [offer] = b.offers.value
      expect(b.canBeNew(offer!)).toBe(true)
      const to = await b.asNew(offer!)
      expect(to.params.id).toBe(1)
      const kind = path.split('/')[2]
      const thing = things.get(`/api/${kind}/1`)!
      expect(asked).toContain(`POST /api/${kind}`)
      expect(thing).toMatchObject(
        plan ? { title: 'Chart (mine)', plan: mine } : { title: fresh ? 'Mine' : 'Mine (mine)' },
      )
      expect(b.offers.value).toEqual([])
    },
  )

  it('of which nothing can be made says so', async () => {
    const b = await browser()
    await b.leave('/api/charts/1/plan', 'old.x.1', {}, { nearest: true })
    await b.leave('/api/player', 'old.x.1', {}, { frets: 24 })
    expect(b.offers.value.map(b.canBeNew)).toEqual([false, false])
  })
})
