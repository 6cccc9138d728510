import { describe, expect, it } from 'vitest'
import { engrave } from '../../music/text'
import { address, all, ask, click, fill, find, open, sees, texts, until, visit } from '../../../testing/open'

await open('/licks')

interface Kept {
  id: number
  leans: string[]
  holds?: string
  levels?: { id: string; score: { notes: { bend?: number; join?: string; vibrato?: boolean }[] } }[]
}

describe('a lick', () => {
  it('is found by what it leans on, and by where it lands', async () => {
    const titles = () => texts('.card header a')
    await until(() => titles().length > 5)
    const before = titles().length
    const shelf = await ask<{ title: string; leans: string[]; landsOn: string }[]>('/api/licks?limit=100')
    const lick = shelf.find((l) => l.leans.length)!
    const wanted = (more: (l: (typeof shelf)[number]) => boolean) => shelf.filter((l) => l.leans.includes(lick.leans[0]!) && more(l)).map((l) => l.title).toSorted() // prettier-ignore
    const shown = () => titles().toSorted().join()
    await fill("[aria-label='find a lick']", `leans on ${engrave(lick.leans[0]!)}`)
    await until(() => shown() === wanted(() => true).join() && shown() && titles().length < before)
    expect(texts('.card .leans').every((t) => t.includes(engrave(lick.leans[0]!)))).toBe(true)
    await fill("[aria-label='find a lick']", `leans on ${lick.leans[0]} lands on ${lick.landsOn}`)
    await until(() => shown() === wanted((l) => l.landsOn.startsWith(lick.landsOn)).join())
    await fill("[aria-label='find a lick']", '')
    await until(() => titles().length === before)
  })

  it('keeps where it was written, and shows all its places from there', async () => {
    const line = { title: 'Mole', key: 'A', feel: 'shuffle', tempo: 96, beats: 4, text: '| A7 |', low: 4, high: 8, notes: [{ id: 1, start: 0, length: 480, string: 3, fret: 6, note: '' }, { id: 2, start: 480, length: 960, string: 2, fret: 5, note: '' }] } // prettier-ignore
    const body = await ask<object>('/api/licks/keep', 'POST', { line, first: 1, last: 2 })
    const { id } = await ask<Kept>('/api/licks', 'POST', { ...body, title: 'Short Mole', tags: [], remark: 'softly', source: 'the sheet' }) // prettier-ignore
    await visit(`/licks/${id}?over=G7`)
    await sees('.beside', 'written over A7')
    await sees('.beside', 'from the sheet')
    await sees('.beside', 'softly')
    await sees('.spots li', 'frets 3 to 4')
    await sees('.spots li', 'its own shape')
    await until(() => texts('.spots li').length > 2)
    await click('.spots li:nth-child(2) button', 'mm away')
    await until(() => find('.spots li:nth-child(2) button')!.getAttribute('aria-pressed') === 'true')
    await click('header button', 'Change')
    await fill('#lick-remark', 'louder')
    await until(async () => (await ask<{ remark: string }>(`/api/licks/${id}`)).remark === 'louder')
    expect((await ask<{ home: { places: unknown[] } }>(`/api/licks/${id}`)).home.places).toHaveLength(2)
    await ask(`/api/licks/${id}`, 'DELETE')
  })

  it('is learned as a line in its parts, which is found again until the lick is another', async () => {
    const line = { title: 'Bollard', key: 'A', feel: 'shuffle', tempo: 88, beats: 4, text: '| A7 | % |', low: 4, high: 8, notes: [{ id: 1, start: 0, length: 960, string: 3, fret: 6, note: '' }, { id: 2, start: 960, length: 960, string: 2, fret: 5, note: '' }, { id: 3, start: 3840, length: 960, string: 3, fret: 7, note: '' }, { id: 4, start: 4800, length: 960, string: 3, fret: 6, note: '' }] } // prettier-ignore
    const body = await ask<object>('/api/licks/keep', 'POST', { line, first: 1, last: 4 })
    const { id } = await ask<Kept>('/api/licks', 'POST', { ...body, title: 'Bollard', tags: [] })
    const lines = async () => (await ask<{ id: number; title: string }[]>('/api/lines?limit=100')).filter((l) => l.title === 'Bollard, to learn') // prettier-ignore
    const learn = async (parts: string) => {
      await visit(`/licks/${id}`)
      await until(() => all<HTMLInputElement>('h1 input').some((e) => e.value === 'Bollard'))
      await click('header button', 'Learn it')
      await until(() => location.pathname.startsWith('/lines/') && location.search.includes('parts=yes'))
      await sees('.parts', parts)
      await sees('.parts', 'at 96')
    }
    await learn('part 1 of 2')
    await learn('part 1 of 2')
    expect(await lines()).toHaveLength(1)
    await visit(`/licks/${id}`)
    await click('header button', 'Change')
    const text = find('#lick-notes') as HTMLTextAreaElement
    await fill('#lick-notes', text.value.split(' ').slice(0, -1).join(' '))
    await until(async () => (await ask<{ notes: unknown[] }>(`/api/licks/${id}`)).notes.length === 3)
    await learn('part 1 of 1') // what is left is one breath
    expect(await lines()).toHaveLength(2)
    await visit(`/licks/${id}`)
    await click('header button', 'Land it')
    await until(() => location.pathname.startsWith('/practice') && location.search.includes(`mode=lick&with=${id}`))
    await sees('.stage', 'lick')
    for (const l of await lines()) await ask(`/api/lines/${l.id}`, 'DELETE')
    await ask(`/api/licks/${id}`, 'DELETE')
  })

  it('has forms from plain to as it is, and is heard over the chord that holds what it leans on', async () => {
    const list = await ask<{ id: number; leans: string[] }[]>('/api/licks?limit=100')
    const all100 = await Promise.all(list.map((l) => ask<Kept>(`/api/licks/${l.id}`)))
    const bent = all100.find(
      (l) => l.levels && l.levels.length > 2 && l.levels.at(-1)!.score.notes.some((n) => n.bend),
    )!
    expect(bent).toBeTruthy()
    await visit(`/licks/${bent.id}`)
    const forms = () => texts("[aria-label='how far it is dressed'] button")
    await until(() => forms().length === bent.levels!.length)
    expect(forms()[0]).toBe('plain')
    expect(forms().at(-1)).toBe('as it is')
    await click("[aria-label='how far it is dressed'] button", 'plain')
    await until(() => address().includes('level=plain'))
    const plain = bent.levels![0]!.score.notes
    expect(plain.some((n) => n.bend || n.join || n.vibrato)).toBe(false)
    const leaning = all100.find((l) => l.holds)!
    await visit(`/licks/${leaning.id}`)
    await sees('.meta', 'leans on')
    await sees('header button', 'over C')
    // One that leans on nothing says nothing of it.
    const settled = all100.find((l) => l.leans.length === 0)!
    await visit(`/licks/${settled.id}`)
    await until(() => find('.sheet svg') && !texts('.meta').join().includes('leans on'))
    expect(all('header button').some((b) => b.textContent?.includes('over C'))).toBe(false)
  })
})
