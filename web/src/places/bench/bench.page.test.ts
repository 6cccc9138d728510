import { describe, expect, it } from 'vitest'
import { address, all, ask, choose, click, fill, find, focus, keys, open, sees, shut, texts, until, visit, write } from '../../../testing/open' // prettier-ignore
import type { ChartMap } from '../../api/client'

await open('/bench/6?frets=7-11')

const degrees = () => all('[data-spot]').map((e) => e.dataset.degree)
const strings = () => [...new Set(all('[data-spot]').map((e) => Number(e.dataset.spot!.split(':')[0])))].sort().join()
const map = () => ask<ChartMap>('/api/charts/6/map')
const threadOf = async (low: number) => {
  const m = await map()
  return new Map(m.byPosition[m.positions.findIndex((p) => p.low === low)]!.thread.targets.map((t) => [t.step, t]))
}

describe('what is drawn on the neck', () => {
  it('is what the core found, over every chord in every position: places, degrees, arrivals, none on another', async () => {
    const m = await map()
    for (const [at, p] of m.positions.entries()) {
      await visit(`/bench/6?frets=${p.low}-${p.high}`)
      await until(() => location.search.includes(`frets=${p.low}-`) && all('[data-spot]').length > 4)
      for (const bar of [1, 2, 9]) {
        await click(`[data-bar="${bar}"]`)
        const chord = m.bars[bar - 1]!.changes[0]!.chord
        const run = m.byPosition[at]!.runs[chord]!
        await sees('.run-card h2', m.chords[chord]!.symbol)
        const names = new Set(run.notes.map((n) => n.degree))
        // Every note of the run is there; what is more is a tone of the chord, the same pitch once more.
        const shown = () => new Map(all('[data-spot]').map((e) => [e.dataset.spot!, e.dataset.degree!]))
        await until(() => run.notes.every((n) => shown().get(`${n.string}:${n.fret}`) === n.degree) && [...shown().values()].every((d) => names.has(d))) // prettier-ignore
        for (const spot of shown().keys()) {
          const fret = Number(spot.split(':')[1])
          expect(fret, spot).toBeGreaterThanOrEqual(p.low)
          expect(fret, spot).toBeLessThanOrEqual(p.high)
        }
        const places = all('[data-spot], [data-arrival]').map((e) => e.getAttribute('transform'))
        expect(new Set(places).size, `${p.low} bar ${bar}`).toBe(places.length)
      }
    }
  })

  it('lies higher the higher the fret, and string by string', async () => {
    await visit('/bench/6?frets=7-11&bar=1')
    await until(() => location.search.includes('frets=7-11') && all('[data-spot]').length > 4)
    const at = new Map(all('[data-spot]').map((e) => [e.dataset.spot!, /\(([\d.]+)[ ,]+([\d.]+)\)/.exec(e.getAttribute('transform')!)!.slice(1).map(Number)])) // prettier-ignore
    const list = [...at].map(([spot, [x, y]]) => ({ string: Number(spot.split(':')[0]), fret: Number(spot.split(':')[1]), x: x!, y: y! })) // prettier-ignore
    for (const a of list)
      for (const b of list) {
        if (a.fret < b.fret) expect(a.x).toBeLessThan(b.x)
        if (a.fret === b.fret) expect(a.x).toBeCloseTo(b.x)
        if (a.string < b.string) expect(a.y).toBeLessThan(b.y)
        if (a.string === b.string) expect(a.y).toBeCloseTo(b.y)
      }
  })

  it('tells how far the next chord is', async () => {
    await visit('/bench/6?frets=7-11&bar=2')
    await sees('.crossing .enclosed', 'around')
    await click('.labels button', 'steps')
    await until(() => location.search.includes('labels=steps'))
    const steps = () => new Map(all('[data-spot]').map((e) => [e.dataset.degree, e.querySelector('text')!.textContent!.trim()])) // prettier-ignore
    await until(() => steps().get('R') === '−1' && steps().get('3') === '+1' && steps().get('5') === '=' && steps().get('b7') === '+1') // prettier-ignore
    for (const [label, want] of [
      ['note', 'C'],
      ['finger', '2'],
      ['fret', '8'],
      ['degree', '5'],
    ] as const) {
      await click('.labels button', label)
      await until(() => find('[data-spot="1:8"]')?.querySelector('text')?.textContent?.trim() === want)
    }
  })

  it('answers anywhere by keys', async () => {
    await visit('/bench/6?frets=7-11&bar=2')
    await until(() => all('[data-spot]').length > 5)
    await focus('.neck')
    await keys('ArrowRight', 'ArrowRight', 'ArrowUp', 'Enter') // from string 6, fret 7
    await sees('.blend .place', 'G♭3')
    await sees('.blend .place', 'at 5:9')
    expect(address()).toContain('bar=2')
  })

  it('has a shape, and a grip with the same fingering elsewhere', async () => {
    await visit('/bench/6?frets=4-8')
    for (const [bar, name, grip] of [
      [1, 'C7, G shape', ''],
      [2, 'F7, C shape', '× 8 7 8 6 ×'],
      [9, 'G7, D shape', ''],
    ] as const) {
      // prettier-ignore
      await click(`[data-bar='${bar}']`)
      await sees('.run-card h2', name)
      await sees('.run-card .held', `grip ${grip}`)
    }
    await click("[data-bar='2']")
    await click('.run-card .held button', 'G7')
    await sees('.windows .on', '7–11')
  })
})

describe('the thread', () => {
  it('shows its arrivals through a chorus', async () => {
    await visit('/bench/6?frets=7-11&bar=1')
    await sees('.crossing', 'C7 to F7')
    const thread = await threadOf(7)
    expect(thread.size).toBe(12)
    const bars = 'CFCCFFCCGFCG'
    for (let bar = 0; bar < 12; bar++) {
      let next = (bar + 1) % 12
      while (bars[next] === bars[bar]) next = (next + 1) % 12
      const [to, from] = [thread.get(next)!, thread.get(bar)!]
      await sees('.crossing h2', `${bars[bar]}7 to ${bars[next]}7`)
      await until(() => find(`[data-arrival="${to.string}:${to.fret}"]`))
      if (from.string !== to.string || from.fret !== to.fret)
        await until(() =>
          find(`[data-arrival="${to.string}:${to.fret}"] .chosen, [data-spot="${to.string}:${to.fret}"]`),
        )
      await until(() => find(`[data-target="${bar}"]`))
      await keys('ArrowRight')
    }
    await sees('.crossing h2', 'C7 to F7')
  })

  it('goes through what is chosen by hand, and back', async () => {
    const line = () => find('.thread[d]')?.getAttribute('d')
    const first = () => find('[data-target="1"] title')?.textContent?.trim() ?? ''
    const was = await until(line)
    await click('.crossing li button', 'C to C') // the root stays as the fifth
    await until(() => line() !== was && find('[data-target="1"] .pinned'))
    const to = await until(async () => (await threadOf(7)).get(1)!)
    expect([to.degree, to.pinned]).toEqual(['5', true])
    await sees('[data-bar="2"]', 'C')
    await keys('t')
    await until(() => !first().startsWith('5'))
    await keys('u', 'u')
    await until(() => line() === was)
    await click('[data-arrival="5:8"]')
    await until(() => first().startsWith('R, F at 5:8'))
    await click('.crossing button', 'Let the thread choose again')
    await until(() => line() === was)
  })

  it('is of other kinds, is listed, and says where there is none', async () => {
    await click('.thread button', 'Targets')
    await choose('thread-mode', 'ladder')
    await shut()
    await sees('.thread .about', 'chorus 1 of 4')
    await keys('End', 'ArrowRight')
    await sees('.thread .about', 'chorus 2 of 4')
    await until(() => find('[data-target="0"] title')?.textContent?.trim().startsWith('♭7'))
    await click('.thread button', 'List')
    await until(() => all('[role=dialog] tbody tr').length === 48)
    await shut()
    await visit('/bench/6?own=1-1')
    await sees('.thread .problem', 'No thread: in bar')
  })

  it('aims at a turnaround that is only imagined, and marks what rubs', async () => {
    await visit('/bench/6?frets=7-11&bar=11')
    await click('.thread button', 'Targets')
    await choose('thread-mode', 'nearest')
    await choose('imagine', 'Three')
    await shut()
    await sees('[data-bar="11"]', 'Em7')
    await sees('[data-bar="11"]', 'A7')
    await sees('[data-bar="11"]', 'band C7')
    await sees('[data-bar="11"] .rubs', 'C♯')
    await sees('.crossing h2', 'Em7 to A7')
    await keys('ArrowRight')
    await sees('.run-card', 'A7')
    await keys('u')
    await sees('.crossing h2', 'C7 to G7')
  })
})

describe('the blend', () => {
  it('proposes palettes, and what one place is over every chord', async () => {
    await visit('/bench/6?frets=2-6&bar=1')
    await sees('.blend', 'Add E')
    await sees('.blend .notes', 'wants 3')
    await keys('p', 'p') // minor blues, major pentatonic
    await sees('.blend .p-select', 'major pentatonic')
    await sees('.blend', 'Add B♭')
    await click('[data-palette="2:3"]') // D in the major pentatonic
    await sees('.blend .place', 'bent a whole step the 3')
    await sees('.blend .place', 'bent a half step the ♭7')
    await sees('.blend .place', '5, rest')
    await visit('/bench/6?frets=7-11&dim=palette')
    await until(() => find('[data-layer=palette]')?.classList.contains('faded'))
    await click('.layers button', 'bends')
    await until(() => find('[data-layer=bends]')?.classList.contains('faded') && location.search.includes('bends'))
    expect(document.querySelectorAll('[data-bend]').length).toBeGreaterThan(0)
  })

  it('lays both boxes on one neck, proposes one over each chord, and lets the player know better', async () => {
    await visit('/bench/6?frets=7-11&bar=1')
    await click('.blend .p-select')
    await click('[role=option]', 'minor and major pentatonic, box by box')
    await sees('.blend .box [aria-pressed=true]', 'major')
    await sees('.blend .box', 'E is the 3 of C7; F of the minor box is its 11, tension')
    const tile = (n: number) => texts(`[data-bar="${n}"]`)[0] ?? ''
    await until(() => tile(1).includes('major') && tile(2).includes('minor'))
    await until(() => document.querySelectorAll('[data-slide]').length > 0)
    await until(() => ['minor', 'major', 'both'].every((b) => document.querySelector(`[data-palette].${b}`)))
    await click("[data-bar='2']")
    await sees('.blend .box [aria-pressed=true]', 'minor')
    await sees('.blend .box', 'E of the major box is its 7, passing')
    await click('.blend .box button', 'major')
    await sees('.blend .box', 'Your choice. Proposed is the minor box')
    await until(() => tile(2).includes('major'))
    await click('.blend .box button', 'minor')
    await until(() => !texts('.blend .box')[0]!.includes('Your choice'))
    // A palette of one's own, of the steps that are pressed.
    await click('.blend .p-select')
    await click('.make')
    await write('#palette-name', 'Quayside five')
    for (const step of ['♭5', '2']) await click('.steps button', step)
    await click('[role=dialog] button', 'Keep it')
    await sees('.blend .p-select', 'Quayside five')
    await until(async () =>
      (await ask<{ plan: { palette: string } }>('/api/charts/6')).plan.palette.startsWith('own:1 '),
    )
  })
})

describe('the region', () => {
  it('is two strings, three notes a string or frets of its own, kept in the address and with the chart', async () => {
    await visit('/bench/6')
    await click('.windows button[aria-haspopup]')
    for (const s of ['string 6', 'string 4', 'string 3', 'string 1']) await click('.own .strings button', s)
    await sees('.own .strings', 'a low voice and a high one')
    await fill('#own-low input, input#own-low', '0')
    await fill('#own-high input, input#own-high', '12')
    await click('.own button', 'Use it')
    await sees('.windows .on', '0–12 on 5, 2')
    await until(() => strings() === '2,5')
    expect(address()).toContain('own=0-12&on=5')
    await visit('/bench/5')
    await until(() => location.pathname === '/bench/5' && all('[data-spot]').length > 5)
    expect(address()).not.toContain('own=')
    await visit('/bench/6')
    await until(() => strings() === '2,5')
    await click('.windows button', '7–11')
    await until(() => strings().length > 6)
    await click('.windows button[aria-haspopup]')
    await click('.own .ways .p-select')
    await click('[role=option]', 'three notes a string')
    await sees('.own .ways', 'every string is picked alike')
    await click('.own .regions button', 'from step 1')
    await until(() => document.querySelectorAll('.shape circle:not(.unison)').length === 18)
    await until(() => !find('[role=dialog]') && address().includes('way=three'))
    const before = address()
    await keys('ArrowUp')
    await until(() => address() !== before && document.querySelectorAll('.shape circle:not(.unison)').length === 18)
    await visit('/bench/6?own=5-5&on=3')
    await sees('.cards', 'Not in this region')
    await visit('/bench/6?own=5-9&on=7') // strings that are not there
    await sees('main', 'the nearest is frets 5 to 9')
    await click('main button', 'Back to positions')
    await until(() => strings().length > 6)
  })
})

describe('a change', () => {
  it('is landed from where it is seen: its bars go round in its place, on the degree that is aimed for', async () => {
    await visit('/bench/6?frets=7-11')
    await sees('h1', 'Slipway Shuffle')
    const aim = () => find('.crossing li button.chosen')
    await until(() => aim())
    await click('.crossing .deeds button', 'Land it')
    await until(() => location.pathname === '/practice/6' && location.search.includes('do=changes'))
    const query = new URLSearchParams(location.search)
    expect(query.get('frets')).toBe('7-11')
    expect(query.get('loop')).toBe('1-2')
    expect(['thirds', 'roots', 'fifths', 'sevenths', 'land']).toContain(query.get('mode'))
    await sees('.stage', 'on every change')
    await sees('.changes header', 'bars 1–2')
    expect(all('.grid .aside').length).toBe(10)
    await click('.changes header button', 'bars 1–2')
    await until(() => !location.search.includes('loop') && !all('.grid .aside').length)
    history.back()
    await until(() => location.pathname === '/bench/6')
    await sees('h1', 'Slipway Shuffle')
  })

  it('and so are the run, the blend and the thread, on the strings and frets of one’s own', async () => {
    const landed = async (path: string, within: string, n = 0) => {
      await visit(path)
      await until(() => all(`${within} button`).filter((b) => b.textContent === 'Land it').length > n)
      all(`${within} button`)
        .filter((b) => b.textContent?.trim() === 'Land it')
        [n]!.click()
      await until(() => location.pathname === '/practice/6')
      await sees('.changes h1', 'Slipway Shuffle')
      return Object.fromEntries(new URLSearchParams(location.search))
    }
    const run = await landed('/bench/6?own=7-10&on=5,2&bar=9', '.run-card')
    expect(run).toMatchObject({ mode: 'tones', frets: '7-10', hold: 'strings:5,2', loop: '9-9' })
    await sees('.changes', 'strings 5 and 2')
    await sees('.changes header', 'frets 7 to 10')
    await sees('.changes header', 'bar 9')
    expect(await landed('/bench/6?frets=7-11&bar=3', '.blend')).toMatchObject({ mode: 'land', loop: '3-4' })
    expect(await landed('/bench/6?frets=7-11&bar=3', '.blend', 1)).toMatchObject({ mode: 'bends', loop: '3-4' })
    const thread = await landed('/bench/6?frets=7-11&bar=3', '.thread')
    expect(thread).toMatchObject({ mode: 'land', frets: '7-11' })
    expect(thread.loop).toBeUndefined()
  })
})

describe('further', () => {
  it('leads voices through several chords, and from where the hand stands', async () => {
    await visit('/bench/6?frets=7-11&bar=1')
    await click('.crossing button', 'Voices')
    await sees('.leading', 'Voice leading')
    await click('.leading button', 'two')
    await click('.leading button', '3 and 7')
    await until(() => all('.leading li').length === 2)
    await sees('.leading li', '2 half steps')
    await click('.leading .p-select')
    await click('[role=option]', 'the last two bars')
    await until(() => (texts('.leading li')[0]!.match(/7/g) ?? []).length >= 3)
    await visit('/bench/6?frets=7-11&card=leading')
    await click("[data-spot='1:8']")
    await sees('.leading .hand', 'From your hand at 1:8')
    await sees('.leading li', '1:8')
    expect(address()).toContain('hand=1')
    await click('.leading button', 'From anywhere')
    await sees('.leading .hand', 'Press a place on the neck')
    await click('.leading button', 'one tone')
    await visit('/bench/6?own=7-11&on=3&card=leading&voices=two')
    await sees('.leading .problem', 'no 2 tones of C7 lie under one hand in frets 7 to 11 on string 3')
    await click("[aria-label='back to the wave and the cards']")
    await sees('.run-card', 'Run')
  })

  it('puts other arpeggios on the neck in the chord’s place', async () => {
    await visit('/bench/6?frets=7-11&bar=1')
    await click('.run-card button', 'Others')
    await sees('.others li', 'C7 itself')
    await click('.others button', 'steps of the key')
    await until(() => all('.others li').length === 7)
    await click('.others .show', 'Em7')
    await until(() => degrees().length > 0 && degrees().every((d) => ['3', '5', '7', '9'].includes(d!)))
    await click('.others button', 'of its scale')
    await click('.others .show', 'Em7♭5')
    await until(() => degrees().length > 0 && degrees().every((d) => ['3', '5', 'b7', '9'].includes(d!)))
    const whole = degrees().length
    await click('.others .tick-box input')
    await until(() => degrees().length < whole && document.querySelectorAll('.shape circle').length > 10)
  })
})

describe('the music stand', () => {
  it('is turned by a pedal', async () => {
    await visit('/bench/6?frets=7-11&bar=4')
    await sees('.crossing', 'C7 to F7')
    await keys('m')
    await sees('.stand .now', 'C7')
    await sees('.stand .next', 'F7')
    await until(() => find('[data-stand-arrival]'))
    await keys('PageDown')
    await sees('.stand .now', 'F7')
    await sees('.stand .where', 'bar 5')
    await keys('m')
    await sees('.crossing', 'F7 to C7')
    expect(address()).toContain('bar=5')
  })
})

describe('the address', () => {
  it('takes up two things that are chosen at once', async () => {
    await visit('/bench/6?frets=7-11')
    await until(() => find('.run-card li') && find('.run-card button', 'Others'))
    find('.run-card button', 'Others')!.click()
    find('.segments button', 'note')!.click()
    await until(() => address().includes('card=others') && address().includes('labels=note') && find('.others li'))
    expect(address()).toContain('frets=7-11')
  })
})

describe('the Atlas', () => {
  it('shows every way to divide the neck, on strings apart, and the Bench’s own region', async () => {
    await visit('/atlas/6')
    await sees('.caption', 'C shape')
    await until(() => texts('.caption').filter((c) => c.endsWith('fingering 1')).length > 1)
    await click('.regions .p-select', 'five positions')
    await click('[role=option]', 'three notes a string')
    await sees('.regions', 'every string is picked alike')
    await until(() => all('.cell svg').length >= 21)
    await click('.regions .p-select', 'all strings')
    await click('[role=option]', 'strings 5 and 2')
    await until(() => document.querySelector('.cell .string.off'))
    await click('.regions .p-select', 'every chord')
    await click('[role=option]', 'F7')
    await until(() => all('h3').length === 1)
    expect(address()).toContain('way=three')
    await visit('/bench/6?own=5-12&on=3,2')
    await click('header a', 'Atlas')
    await sees('.regions .p-select', '5–12 on 3, 2')
    await until(() => all('.cell svg').length === 3)
  })

  it('maps a scale and every note by its name: the chord’s own tones are filled, the others hollow', async () => {
    await visit('/atlas/6?chord=F7&own=0-4')
    await until(() => all('.cell svg').length === 1)
    const marks = () => [...document.querySelectorAll('.cell svg g[transform] text')].map((t) => t.textContent!.trim())
    await until(() => marks().length > 0 && marks().every((m) => ['R', '3', '5', '♭7'].includes(m)))
    await click('.regions .p-select', 'chord tones')
    await click('[role=option]', 'the chord’s scale')
    // F G A B♭ C D E♭ over frets 0 to 4 of six strings
    await until(() => new Set(marks()).size === 7 && ['9', '11', '13'].every((d) => marks().includes(d)))
    await sees('.title', 'the chord’s scale in one region')
    expect(address()).toContain('of=scale')
    await click('.regions .p-select', 'the chord’s scale')
    await click('[role=option]', 'every note')
    await until(() => marks().length === 30) // six strings, frets 0 to 4
    await until(() => marks().includes('F') && marks().includes('E♭') && marks().includes('B')) // by their names
    const filled = (label: string) => [...document.querySelectorAll('.cell svg g[transform]')].filter((g) => g.textContent!.trim() === label && g.querySelector('path')?.getAttribute('fill') !== 'var(--paper)').length // prettier-ignore
    expect([filled('A') > 0, filled('E'), filled('G')]).toEqual([true, 0, 0]) // E is no tone of F7
    await visit('/atlas/6?of=scale&necks=blank&own=8-10&on=6&chord=C7')
    await until(() => all('.cell svg').length === 1)
    await click("[data-cell='6:8']")
    await click("[data-cell='6:9']")
    await click('header button', 'Check')
    await sees('.score', '1 right, 1 wrong, 1 missing: 9 once') // C, no C♯, and D is missing
    await click('header button', 'Clear')
  })

  it('is filled from blank necks and checked: each place of a pitch will do, what is missing is named', async () => {
    await visit('/atlas/6?necks=blank')
    await until(() => all('.cell svg').length === 15)
    await click('svg[aria-label^="C7, frets 7"] [data-cell="6:8"]') // its root
    await click('svg[aria-label^="C7, frets 7"] [data-cell="5:9"]') // nothing of C7
    await focus('svg[aria-label^="F7, frets 7"]')
    await keys('ArrowRight', ' ') // F7: string 6, fret 8, its fifth
    await until(() => all('[data-filled]').length === 3)
    await click('header button', 'Check')
    await sees('.score', '2 right, 1 wrong')
    await until(() => document.querySelectorAll('[data-missing]').length > 100 && document.querySelectorAll('.wrong').length === 1) // prettier-ignore
    await click('header button', 'Go on filling')
    await until(() => document.querySelectorAll('[data-filled] .dot').length === 3)
    await visit('/atlas/6?necks=blank&own=8-10&on=6,5&chord=C7')
    await until(() => all('.cell svg').length === 1)
    await click("[data-cell='6:8']")
    await click("[data-cell='6:9']")
    await click('header button', 'Check')
    await sees('.score', '1 right, 1 wrong, 1 missing: 5 once')
    await sees('.score', 'It took')
    await click('header button', 'Go on filling')
    await click("[data-cell='5:10']")
    await click("[data-cell='6:9']")
    await click('header button', 'Check')
    await sees('.score', '2 right, 0 wrong, none missing')
    await sees('.score', 'the time before')
    await click('header button', 'Clear')
    await until(() => all('[data-filled]').length === 0)
  })
})
