import { describe, expect, it } from 'vitest'
import { answersFirst } from './first'

const answers = [
  { path: '/api/player', headers: { ETag: '"a.1.2"', 'content-type': 'application/json' }, body: { id: 1 } },
  { path: '/api/charts?offset=0&limit=100', headers: { 'Total-Count': '6' }, body: [] },
]
const of = (path: string, how?: RequestInit) => new Request(`http://127.0.0.1${path}`, how)

function program(first: () => Promise<Response>) {
  const asked: string[] = []
  let time = 0
  const ask = answersFirst(
    (input) => {
      const path = typeof input === 'string' ? input : new URL(input.url).pathname + new URL(input.url).search
      asked.push(path)
      return path === '/api/first' ? first() : Promise.resolve(Response.json({ asked: path }))
    },
    () => time,
  )
  return { ask, asked, wait: (ms: number) => (time += ms) }
}
const whole = () => Promise.resolve(Response.json({ answers }))

describe('what is asked first', () => {
  it('is answered once by what came first, with its headers, and asked from then on', async () => {
    const { ask, asked } = program(whole)
    const player = await ask(of('/api/player'))
    expect([await player.json(), player.headers.get('ETag')]).toEqual([{ id: 1 }, '"a.1.2"'])
    expect((await ask(of('/api/charts?offset=0&limit=100'))).headers.get('Total-Count')).toBe('6')
    expect(asked).toEqual(['/api/first'])
    expect(await (await ask(of('/api/player'))).json()).toEqual({ asked: '/api/player' })
  })

  it('is asked by itself where it did not come along', async () => {
    const { ask, asked } = program(whole)
    for (const path of ['/api/charts/6/map', '/api/licks', '/api/charts?offset=100&limit=100']) await ask(of(path))
    expect(asked).toEqual(['/api/first', '/api/charts/6/map', '/api/licks', '/api/charts?offset=100&limit=100'])
  })

  it('is as good when a chart was opened', async () => {
    const { ask, asked } = program(whole)
    await ask(of('/api/charts/6/opened', { method: 'POST' }))
    await ask(of('/api/player'))
    expect(asked).toEqual(['/api/first', '/api/charts/6/opened'])
  })

  it('is asked anew after anything was changed, and when it is old', async () => {
    for (const passes of [
      (p: ReturnType<typeof program>) => p.ask(of('/api/charts/6/plan', { method: 'PUT' })),
      (p: ReturnType<typeof program>) => p.wait(5001),
    ]) {
      const p = program(whole)
      await passes(p)
      expect(await (await p.ask(of('/api/player'))).json()).toEqual({ asked: '/api/player' })
    }
  })

  it('is asked by itself where nothing came, or something else', async () => {
    for (const first of [
      () => Promise.reject(new TypeError('no network')),
      () => Promise.resolve(new Response('busy', { status: 503 })),
      () => Promise.resolve(new Response('<html>')),
    ]) {
      const { ask } = program(first)
      expect(await (await ask(of('/api/player'))).json()).toEqual({ asked: '/api/player' })
    }
  })
})
