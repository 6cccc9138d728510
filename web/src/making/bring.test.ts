import { afterEach, describe, expect, it, vi } from 'vitest'
import { useBring } from './useBring'

const files = (n: number) => Array.from({ length: n }, (_, i) => new File(['| C7 |'], `${i}.txt`))
/** Answers every question after some milliseconds; those of a name that ends in 3 are refused. */
function answering(after: number) {
  const asked: string[] = []
  vi.stubGlobal('fetch', async (url: string) => {
    asked.push(url)
    await new Promise((r) => setTimeout(r, after))
    const refused = url.includes('name=3.txt')
    const body = refused ? { title: 'no', status: 422, detail: 'bar 1 is empty' } : { chart: { title: url }, said: [] }
    return new Response(JSON.stringify(body), { status: refused ? 422 : 200 })
  })
  return asked
}
afterEach(() => vi.unstubAllGlobals())

describe('files that are brought in', () => {
  it('are all read, each with what came of it', async () => {
    const asked = answering(0)
    const bring = useBring('chart')
    await bring.open(files(9))
    expect(asked).toHaveLength(9)
    expect(bring.items.value.map((i) => !!i.brought)).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8].map((i) => i !== 3))
    expect(bring.items.value[3]!.trouble).toContain('bar 1 is empty')
    expect(bring.wanted.value).toEqual([0, 1, 2, 4, 5, 6, 7, 8])
    bring.want(0, false)
    expect(bring.wanted.value).not.toContain(0)
    expect(bring.going.value).toBeUndefined()
  })
  it('can be stopped on the way', async () => {
    const asked = answering(5)
    const bring = useBring('chart')
    const all = bring.open(files(200))
    await new Promise((r) => setTimeout(r, 30))
    expect(bring.going.value?.of).toBe(200)
    bring.stop()
    await all
    expect(asked.length).toBeGreaterThan(3)
    expect(asked.length).toBeLessThan(150)
    expect(bring.items.value.filter((i) => i.brought || i.trouble)).toHaveLength(asked.length)
  })
  it('are read another way', async () => {
    const asked = answering(0)
    const bring = useBring('line', () => ({ chart: 7 }))
    await bring.open(files(1))
    await bring.again(0, { part: 2 })
    expect(asked[0]).toContain('as=line&part=0&chart=7')
    expect(asked[1]).toContain('as=line&part=2&chart=7')
  })
})
