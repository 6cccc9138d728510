import { describe, expect, it } from 'vitest'
import { all, ask, click, open, sees, until, visit } from '../../../testing/open'

await open('/charts')

/* Letters that could be taken for music, for markup, for another direction; all of it is a player's own. */
const title = 'Abbot’s Quay in the dim light, Ebbing #1 b7 <b>C7</b> مرحبا 🎸'
const remarks = 'Bb or not Bb: Abby’s horn, dim the lights at #2 & <i>go</i>'

/** Wherever a title begins it is there whole, as it was typed. */
function asTyped(where: string): number {
  const text = document.body.textContent!
  const begun = text.split('Quay in').length - 1
  expect(text.split(title).length - 1, where).toBe(begun)
  for (const e of all('[aria-label]')) {
    const label = e.getAttribute('aria-label')!
    if (label.includes('Quay in')) expect(label, where).toContain(title)
  }
  return begun
}

describe('what a player typed', () => {
  it('is shown as it was typed, in every place', async () => {
    const chart = await ask<{ id: number }>('/api/charts', 'POST', { title, remarks, tags: 'Abba, dim', key: 'C', feel: 'shuffle', tempo: 96, beats: 4, text: '| C7 | F7 | C7 | G7 |' }) // prettier-ignore
    const line = await ask<{ id: number }>('/api/lines', 'POST', { title, key: 'C', feel: 'straight', tempo: 96, beats: 4, text: '| C7 | F7 |', low: 7, high: 11, notes: [{ id: 1, start: 0, length: 960, string: 2, fret: 8, note: '' }] }) // prettier-ignore
    const lick = await ask<{ id: number }>('/api/licks', 'POST', { title, chord: '7', ofKey: false, tags: ['Abba', 'dim'], notes: [{ start: 0, length: 960, degree: 'R', octave: 0 }, { start: 960, length: 960, degree: 'b7', octave: 0 }] }) // prettier-ignore
    const set = await ask<{ id: number }>('/api/sets', 'POST', { title, items: [{ chart: chart.id, choruses: 3 }] })
    const { id } = chart
    let shown = 0
    for (const [path, ready] of [
      ['/charts', '.charts li'],
      [`/charts/${id}`, '[data-tile]'],
      [`/bench/${id}?frets=7-11`, '[data-spot]'],
      [`/stand/${id}`, '.stand .now'],
      [`/atlas/${id}`, '.cell svg'],
      [`/paper/${id}?of=chords`, '.leaf'],
      [`/paper/${id}?of=thread&frets=7-11`, '[data-note]'],
      ['/lines', '.lines li'],
      [`/lines/${line.id}`, '.grid [data-note]'],
      [`/lines/${line.id}/paper`, '[data-note]'],
      ['/licks', '.card'],
      [`/licks/${lick.id}`, '.ways [data-note]'],
      ['/sets', '.shelf li'],
      [`/sets/${set.id}`, '.set li'],
      [`/practice/${id}?do=calls`, '.call .chord'],
      [`/practice/${id}?do=changes`, '.grid li'],
      [`/practice/${id}?do=changes&mode=tune&with=${line.id}`, '.stage'],
    ] as const) {
      // prettier-ignore
      await visit(path)
      await until(() => all(ready).length)
      shown += asTyped(path)
    }
    expect(shown).toBeGreaterThan(12)
    await visit(`/bench/${id}`)
    await sees('header .remarks', remarks)
    // What was played over it is told by its name.
    await visit(`/practice/${id}?do=changes`)
    await until(() => all('.grid li').length)
    await click('footer button', 'Have a simulated player play it')
    await until(() => all('.result').length)
    await click('.result button', 'Keep it')
    await visit(`/practice/${id}?do=takes`)
    await until(() => all('.takes li').length)
    expect(asTyped('takes')).toBeGreaterThan(0)
  })

  it('is in files as it was typed', async () => {
    const unescaped = (xml: string) =>
      xml.replace(/&#(x?)([\da-f]+);/gi, (_, x, n) => String.fromCodePoint(parseInt(n, x ? 16 : 10))).replaceAll('&lt;', '<').replaceAll('&gt;', '>').replaceAll('&quot;', '"').replaceAll('&apos;', "'").replaceAll('&amp;', '&') // prettier-ignore
    const idOf = async (of: string) => (await ask<{ id: number; title: string }[]>(`/api/${of}`)).find((c) => c.title === title)!.id // prettier-ignore
    const [chart, line, lick] = [await idOf('charts'), await idOf('lines'), await idOf('licks')]
    for (const path of [
      `/api/charts/${chart}/files/chordpro`,
      `/api/charts/${chart}/files/musicxml?low=7&high=11`,
      `/api/lines/${line}/files/musicxml`,
      `/api/lines/${line}/files/tab`,
      `/api/licks/files/musicxml?id=${lick}`,
    ])
      // prettier-ignore
      expect(unescaped(await ask<string>(path)), path).toContain(title)
  })
})

describe('music', () => {
  it('is printed, nowhere left in plain letters', async () => {
    const letters = /(?<![\p{L}♭♯])[A-G](?:b(?![\p{L}’'])|#)|(?<![\p{L}\d])b(?=\d)/u
    for (const [path, ready] of [
      ['/charts', '.charts li'],
      ['/charts/4', '[data-tile]'],
      ['/bench/4?frets=10-14&bar=6', '[data-spot]'],
      ['/bench/4?frets=10-14&card=leading&voices=two', '.leading li'],
      ['/atlas/4', '.cell svg'],
      ['/paper/4?of=chords&reading=eb', '.leaf'],
      ['/lines', '.lines li'],
      ['/lines/4', '.grid [data-note]'],
      ['/lines/4?panel=blend', '.share'],
      ['/licks?tag=box', '.card'],
      ['/practice/4?ask=tones&seed=3', '.call .chord'],
      ['/practice/4?ask=bend&seed=3', '.given'],
      ['/practice/4?do=changes&mode=imagined', '.grid li'],
      ['/practice/4?do=today', '.items li'],
      ['/practice/4?do=log', '.wheel .cell'],
      ['/stand/4?bar=4', '.stand .next'],
    ] as const) {
      // prettier-ignore
      await visit(path)
      await until(() => all(ready).length)
      const shown = all('main *').flatMap((e) =>
        [...e.childNodes].filter((n) => n.nodeType === 3).map((n) => n.textContent!),
      )
      expect(
        shown.filter((t) => letters.test(t) && !t.includes(title) && t !== remarks),
        path,
      ).toEqual([])
    }
  })
})
