import { describe, expect, it } from 'vitest'
import { address, all, ask, choose, click, fill, find, focus, hand, keys, open, saved, sees, shut, texts, until, visit, write } from '../../../testing/open' // prettier-ignore

await open('/charts/new')

const text = () => document.querySelector<HTMLTextAreaElement>('#text')!.value
const tile = (n: number, says: string) => sees(`[data-tile='${n}']`, says)
const says = (want: string) => until(() => text() === want || (() => { throw new Error(text()) })()) // prettier-ignore
const keyOf = () => texts('.p-select:has(#key)')[0]

const whole = {
  title: 'Third Pier',
  key: 'C',
  feel: 'shuffle',
  tempo: 96,
  beats: 4,
  text: '| C7 | F7 | C7 | C7 | F7 | F7 | C7 | C7 | G7 | F7 | C7 | G7 |',
}
const another = async (title: string) => (await ask<{ id: number }>('/api/charts', 'POST', { ...whole, title })).id

describe('a chart that is written', () => {
  it('is told where it cannot be read, and what to write there', async () => {
    await write('#text', '| C7 | Fmja7 | | G7 |')
    await sees('.problems', 'bar 2: cannot read "ja7" in "Fmja7"')
    await sees('.problems', 'bar 3 is empty')
    await until(() => all<HTMLButtonElement>('header button').at(-1)!.disabled)
    await click('.problems button', 'bar 2')
    const field = document.querySelector<HTMLTextAreaElement>('#text')!
    expect(field.value.slice(field.selectionStart, field.selectionEnd)).toBe('Fmja7')
    await click('.problems .p-button', 'Write Fmaj7')
    await click('.problems .p-button', 'Repeat the bar before')
    await sees('.preview', 'Fmaj7')
    await click('button', 'Make chart')
    await sees('[role=alert]', 'a chart needs a title')
    await write('#title', 'Gangway')
    await click('button', 'Make chart')
    await sees('h1', 'Gangway')
    await visit('/charts')
    await sees('.charts', 'Gangway')
    expect((await ask<unknown[]>('/api/charts')).length).toBe(8)
  })

  it('is pasted as it was found: what it says is offered, its key is guessed, its order is played', async () => {
    await visit('/charts/new')
    await write('#title', 'Harbour Round')
    await write('#text', 'Tempo: 104\n[Verse]\n|: G7 | C7 |1. G7 | D7 :|2. G7 | G7 |\n[Bridge]\n| Am7 | D7 |')
    await sees('[role=status]', 'Played: 10 bars: 1–4, 1–2, 5–8')
    await sees('[role=status]', 'The text says: 104 beats a minute')
    await click('[role=status] button', 'Take it over')
    await until(() => document.querySelector<HTMLInputElement>('#tempo')!.value === '104')
    await sees('[role=status]', 'This sounds like G')
    await click('[role=status] button', 'It is G')
    await until(() => !texts('[role=status]').some((t) => t.includes('This sounds like')))
    await tile(5, '2.')
    await write('#tags', 'duo,  evening, duo')
    await write('#remarks', 'the horns come in at the bridge')
    await click('header button', 'Make chart')
    await sees('h1', 'Harbour Round')
    await until(() => all('.sheet .bar').length === 10)
    await sees(".sheet [data-bar='6'] .number", '2nd time')
    await sees('header .remarks', 'the horns come in at the bridge')
    const id = location.pathname.split('/')[2]
    expect((await ask<{ text: string }>(`/api/charts/${id}`)).text).toBe('|: [Verse] G7 | C7 | 1. G7 | D7 :| 2. G7 | G7 |\n| [Bridge] Am7 | D7 |') // prettier-ignore
    await visit('/charts')
    await write("input[aria-label='find a chart']", 'evening')
    await until(() => all('.charts li').length === 1)
    await sees('.charts li', 'duo, evening')
    await visit(`/paper/${id}?of=thread&frets=7-11`)
    await until(() => texts('article text.section').join() === 'Verse,Verse,Bridge')
    await visit(`/paper/${id}?of=chords`)
    await sees('.leaf', 'the horns come in at the bridge')
  })

  it('keeps its capo and its pickup, on the Bench and on the stand', async () => {
    await visit('/charts/new')
    await write('#title', 'Mole End')
    await write('#text', 'Capo: 3\nKey: C\n| pickup 1/4 G7 | C7 | F7 |\n| G7 | C7 |')
    await sees('[role=status]', 'The text says: sounds in E♭, the shapes to play with a capo at fret 3')
    await click('[role=status] button', 'Take it over')
    await says('| pickup 1/4 Bb7 | Eb7 | Ab7 |\n| Bb7 | Eb7 |')
    await tile(1, 'pickup')
    await tile(1, 'B♭7')
    const name = (n: number) => find(`[data-tile='${n}']`)!.textContent!.replace(/\s+/g, ' ').trim()
    expect(name(1)).toMatch(/^pickup of 1 beat ?B♭7/)
    expect(name(2)).toMatch(/^bar 1 ?E♭7/)
    await sees('.p-select:has(#reading)', 'capo 3')
    await click('header button', 'Make chart')
    await sees('h1', 'Mole End')
    await until(() => all('.sheet .bar').length === 4)
    await sees('.sheet .pickup', 'on 4')
    await sees('.sheet .pickup', 'B♭7')
    await sees('header .sounds', 'sounds in E♭')
    await sees('header .sounds', 'shapes in C')
    await click('header .sounds button', 'Capo on 3')
    await until(() => !find('header .sounds button'))
    expect((await ask<{ capo: number }>('/api/player')).capo).toBe(3)
    const id = location.pathname.split('/')[2]
    await visit(`/stand/${id}`)
    await sees('.stand .now', 'C7')
    await sees('.stand .section', 'G7 on 4')
    await choose('stand-reading', 'concert')
    await sees('.stand .now', 'E♭7')
    await until(() => address().includes('reading=concert'))
    await choose('stand-reading', 'F')
    await sees('.stand .now', 'B♭7')
    const { tuning, frets, scale, comfort, habit } = await ask<Record<string, unknown>>('/api/player')
    await ask('/api/player', 'PUT', { tuning, frets, scale, comfort, habit, left: false, capo: 0 })
  })

  it('is found, deleted and brought back', async () => {
    await visit('/charts')
    await write("input[aria-label='find a chart']", '')
    const had = all('.charts li').length
    await click('button', 'delete Low Water')
    await until(() => all('.charts li').length === had - 1)
    await click('.told button', 'Undo')
    await sees('.charts', 'Low Water')
    await write("input[aria-label='find a chart']", 'pier')
    await until(() => all('.charts li').length === 1)
    await write("input[aria-label='find a chart']", '')
  })
})

describe('the key of a chart', () => {
  it('that is chosen asks what becomes of the chords, and is not lost', async () => {
    await visit(`/charts/${await another('Second Pier')}`)
    await sees('.preview', 'F7')
    await choose('key', 'F')
    await click('.ask button', 'They stay')
    await sees('.preview', 'V7') // C7 in F
    await until(() => !find('.ask'))
    await click('button', 'undo key')
    await until(() => keyOf() === 'C')
    await choose('key', 'G')
    await click('.ask button', 'Neither')
    await until(() => keyOf() === 'C')
    await write('#text', '| C7 | nonsense |')
    await choose('key', 'A♭')
    await click('.ask button', 'Move the chords')
    await sees('.problems', 'nonsense')
    await until(() => keyOf()?.includes('A♭') && find('.ask'))
    await click('.ask button', 'They stay')
    await write('#text', '| Ab7 | Db7 |')
    await sees('.preview', 'I7')
    await visit('/bench/4') // in E♭
    await sees('.meta', 'E♭')
    await visit('/lines')
    await click('button', 'New line')
    await until(() => texts('.p-select:has(#line-key)')[0]?.includes('E♭'))
    await shut()
  })

  it('moves the chords, and turnarounds say what they would change', async () => {
    const id = await another('Third Pier')
    await visit(`/charts/${id}`)
    await until(() => document.querySelector<HTMLInputElement>('#title')?.value === 'Third Pier')
    await sees('.preview', 'F7')
    await choose('key', 'F♯')
    await click('.ask button', 'Move the chords')
    await sees('.preview', 'C♯7')
    await saved()
    await choose('turnaround', 'Three')
    await sees('.swap', '2 of 12 bars are others')
    await sees('.swap li', 'A♯m7')
    await click('.swap button', 'Leave it')
    await until(() => !find('.swap') && !texts('.preview')[0]!.includes('A♯m7'))
    await choose('turnaround', 'Three')
    await click('.swap button', 'Put it in')
    await sees('.preview', 'A♯m7')
    await click('button', 'undo turnaround')
    await until(() => !texts('.preview')[0]!.includes('A♯m7'))
    await choose('turnaround', 'Dominants in half steps')
    await click('.swap button', 'Put it in')
    await sees('.preview', 'A7')
    await saved()
    await click('button', 'Play it')
    await sees('.meta', 'F♯')
    await click('[data-bar="12"] button')
    await sees('.crossing .now', 'G♯7')
  })
})

describe('the bars of a chart', () => {
  const chosen = () => all('.tile[aria-pressed=true]').length
  const carry = (kind: string, e: Element, data: DataTransfer, right = false) => {
    const event = new Event(kind, { bubbles: true, cancelable: true })
    const at = e.getBoundingClientRect()
    Object.assign(event, { dataTransfer: data, clipboardData: data, clientX: right ? at.right - 4 : at.left + 4, clientY: at.top + 4 }) // prettier-ignore
    e.dispatchEvent(event)
  }
  const bar = (n: number) => document.querySelector(`[data-tile='${n}']`)!

  it('are typed over, moved, doubled, taken out, copied and pasted, and spelt in numerals', async () => {
    await visit('/charts/new')
    await write('#text', '| C7 | F7 | G7 | A7 |\n| D7 | Em7 |')
    await tile(6, 'Em7')
    await click("[data-tile='2']")
    await keys('Enter')
    await until(() => document.querySelector<HTMLInputElement>('.tiles input')?.value === 'F7')
    await write('.tiles input', 'Dm7 G7')
    await keys('Enter')
    await says('| C7 | Dm7 G7 | G7 | A7 |\n| D7 | Em7 |')
    await tile(2, 'Dm7')
    // What cannot be read stays to be mended.
    await keys('Enter')
    await write('.tiles input', 'Hx7')
    await keys('Enter')
    await sees('[role=alert]', 'Hx7')
    await keys('Escape')
    await until(() => !document.querySelector('.tiles input'))
    await keys('Shift+ArrowRight')
    await until(() => chosen() === 2)
    await keys('Alt+ArrowRight')
    await says('| C7 | A7 | Dm7 G7 | G7 |\n| D7 | Em7 |')
    await tile(3, 'Dm7')
    await click('button', 'undo')
    await says('| C7 | Dm7 G7 | G7 | A7 |\n| D7 | Em7 |')
    await tile(2, 'Dm7')
    await click("[data-tile='1']")
    const data = new DataTransfer()
    carry('dragstart', bar(1), data)
    expect(data.getData('text/plain')).toBe('| C7 |')
    carry('dragover', bar(4), data, true)
    carry('drop', bar(4), data, true)
    carry('dragend', bar(1), data)
    await says('| Dm7 G7 | G7 | A7 | C7 |\n| D7 | Em7 |')
    await tile(4, 'C7')
    await click('.deeds button', 'Double')
    await says('| Dm7 G7 | G7 | A7 | C7 | C7 |\n| D7 | Em7 |')
    await tile(5, 'C7')
    await click('.deeds button', 'Take out')
    await says('| Dm7 G7 | G7 | A7 | C7 |\n| D7 | Em7 |')
    await tile(5, 'D7')
    // What comes from elsewhere brings its metre along.
    await click("[data-tile='6']")
    const other = new DataTransfer()
    other.setData('text/plain', '2/4 B7')
    carry('paste', bar(6), other)
    await tile(7, '2/4')
    await click("[data-tile='7']")
    const copied = new DataTransfer()
    carry('copy', bar(7), copied)
    expect(copied.getData('text/plain')).toBe('| 2/4 B7 |')
    await click('button.spelling', 'numerals')
    await until(() => text().startsWith('| ii7 V7 | V7 | VI7 | I7 |'))
    await click('button.spelling', 'chord names')
    await until(() => text().startsWith('| Dm7 G7 | G7 | A7 | C7 |'))
    await write('#text', '')
  })
})

it('an intro and an ending are kept with the chart, told in words and heard', async () => {
  const { id } = await ask<{ id: number }>('/api/charts', 'POST', { title: 'Ends', key: 'A', feel: 'shuffle', tempo: 120, beats: 4, text: '| A7 | D7 | E7 | A7 |' }) // prettier-ignore
  await visit(`/charts/${id}`)
  await choose('intro', 'from the turnaround')
  await sees('main', 'the last two bars, to the top')
  await choose('ending', 'walking home')
  await sees('main', 'down to the one')
  await saved()
  const kept = await ask<{ intro: string; ending: string }>(`/api/charts/${id}`)
  expect([kept.intro, kept.ending]).toEqual(['turnaround', 'walk-down'])
  await choose('intro', 'none')
  await saved()
  expect((await ask<{ intro?: string }>(`/api/charts/${id}`)).intro).toBeUndefined()
})

it('a swing is kept within what can be played, and told where the band is set', async () => {
  await visit('/charts/6')
  await until(() => document.querySelector<HTMLInputElement>('#title')?.value === 'Slipway Shuffle')
  await fill('#swing', '99')
  await sees('[role=alert]', 'a swing of 99 %')
  await fill('#swing', '58')
  await saved()
  await visit('/bench/6')
  await sees('.strip', 'Slipway')
  await click('.strip .more', 'Band')
  await sees('[role=dialog]', '58 %, lightly swung; as the chart has it')
  await keys('Escape')
})

it('addresses that lead nowhere say where they might', async () => {
  for (const [path, what] of [
    ['/bench/99', 'there is no such chart'],
    ['/charts/99', 'there is no such chart'],
    ['/nowhere/at/all', 'leads nowhere'],
    ['/bench/6?own=20-40', 'the nearest is'],
    ['/atlas/77', 'there is no such chart'],
  ] as const) {
    // prettier-ignore
    await visit(path)
    await sees('main', what)
  }
  await visit('/bench/6?bar=99&frets=90-99&labels=colour')
  await sees('.crossing .now', '7')
})

describe('files', () => {
  const play = (step: string, voice: string) => `<note><pitch><step>${step}</step><octave>4</octave></pitch><duration>4</duration><voice>${voice}</voice></note>` // prettier-ignore

  it('are seen before they are kept, and kept where they are wanted', async () => {
    await visit('/charts')
    const had = (await ask<unknown[]>('/api/charts')).length
    await click('button', 'Import')
    await hand(
      new File(['{title: Harbour Round}\n{tempo: 104}\n|: G7 | C7 | 1. 2/4 G7 :| 2. 4/4 G7 |\nla la la by the water\n| Am7 | D7 |'], 'harbour.cho'), // prettier-ignore
      new File(['| C7 | Hx7 |'], 'odd.txt'),
      new File(['C7 F7 C7 G7'], 'plain.txt'),
    )
    await sees('.preview', '8 bars in G, 104 a minute')
    await sees('.preview .said', 'a line of words was left out')
    await click('.preview .tick-box', 'repeats')
    await until(() => !texts('.preview')[0]!.includes('Played:') && all('.preview .bar').length === 8)
    await click('.preview .tick-box', 'repeats')
    await sees('.preview .said', 'Played: 8 bars')
    await click('.found ol button', 'odd.txt')
    await sees('.preview [role=alert]', 'Hx7')
    expect((await ask<unknown[]>('/api/charts')).length).toBe(had)
    await click('[role=dialog] button', 'Keep 2')
    await sees('.found', 'odd.txt')
    await until(() => !find('.found ol'))
    await shut()
    await sees('.charts', 'plain')
    expect((await ask<unknown[]>('/api/charts')).length).toBe(had + 2)
  })

  it('bring licks back, and of two voices the other is chosen', async () => {
    await visit('/licks')
    await until(() => find('.card'))
    const n = Number(texts('.tags button')[0]!.split(' ')[1])
    await hand(new File([await ask<string>('/api/licks/files/musicxml?id=1&id=2&id=3')], 'licks.musicxml'))
    await sees('.preview', '3 licks')
    await click('[role=dialog] button', 'Keep it')
    await until(() => texts('.tags button').includes(`all ${n + 3}`))
    await visit('/lines')
    await sees('h1', 'Lines')
    await hand(new File([`<score-partwise><part-list><score-part id="A"><part-name>Duo</part-name></score-part></part-list><part id="A"><measure number="1"><attributes><divisions>1</divisions></attributes>${play('C', '1')}<backup><duration>4</duration></backup>${play('E', '2')}</measure></part></score-partwise>`], 'two.musicxml')) // prettier-ignore
    await sees('.preview .said', 'several voices; voice 1 was read')
    await choose('import-part', 'Duo, voice 2')
    await sees('.preview .said', 'several voices; voice 2 was read')
    await click('[role=dialog] button', 'Keep it')
    await until(() => /^\/lines\/\d+$/.test(location.pathname))
    const { notes } = await ask<{ notes: { note: string }[] }>(`/api${location.pathname}`)
    expect(notes.map((x) => x.note)).toEqual(['E4'])
  })
})

describe('paper', () => {
  it('is written for other pitches and behind a capo', async () => {
    await visit('/paper/6?of=chords')
    await sees('.leaf .under', 'in C')
    await choose('paper-reading', 'E♭')
    await sees('.leaf .under', 'in A')
    await sees('.leaf .under', 'it sounds in C')
    await sees(".leaf [data-bar='1']", 'A7')
    await visit('/lines/3/paper')
    await sees('article .under', 'in C')
    await until(() => find('[data-note]'))
    await choose('paper-reading', 'B♭')
    await sees('article .under', 'in D')
    await until(() => document.querySelector<HTMLAnchorElement>('a[download]')!.href.includes('reading=bb'))
    const link = new URL(document.querySelector<HTMLAnchorElement>('a[download]')!.href)
    expect(await ask<string>(link.pathname + link.search)).toContain('<fifths>2</fifths>')
    await visit('/paper/6?of=chords')
    await choose('paper-reading', 'capo 3')
    await sees(".leaf [data-bar='1']", 'A7')
    await sees('.leaf .under', 'the shapes to play with a capo at fret 3')
    await visit('/paper/6?of=thread&reading=bb&frets=7-11')
    await sees('.under', 'written a whole step above')
    await until(() => find('[data-note]'))
  })

  it('shows run, crossing and thread', async () => {
    await visit('/bench/6?frets=7-11&bar=1')
    await sees('.crossing .now', 'C7')
    await click('a', 'Paper')
    await sees('h1', 'On paper')
    const drawn = (n: number) => until(() => new Set(all('[data-note]').map((e) => e.dataset.note)).size === n)
    await drawn(12)
    await click('button', 'run')
    await drawn(17)
    await click('button', 'crossing')
    await sees('.under', 'C7 to F7')
    await until(() => texts('.over text').includes('F7'))
    await until(() => document.querySelector<HTMLAnchorElement>('a[download]')!.href.includes('of=crossing'))
  })
})

describe('the instrument', () => {
  it('is checked, used and kept, and the reach is measured on it', async () => {
    await visit('/bench/6')
    await sees('.crossing .now', '7')
    await click('nav button', 'Neck')
    await write('#tuning', 'E2,A2,D3,G3,H3,E4')
    await click('[role=dialog] button', 'Use this instrument')
    await sees('[role=dialog] [role=alert]', '"H3" is not a pitch')
    expect(document.querySelector<HTMLInputElement>('#tuning')!.value).toBe('E2,A2,D3,G3,H3,E4')
    await choose('tuning-known', 'Seven-string')
    await click('[role=dialog] button', 'left-handed')
    await click('[role=dialog] button', 'Use this instrument')
    await until(() => !find('[role=dialog]') && all('.neck .string').length === 7)
    await click('nav button', 'Neck')
    await choose('tuning-known', 'Standard')
    await click('[role=dialog] button', 'right-handed')
    await write('#instrument-name', 'the plank')
    await click('[role=dialog] button', 'Keep it')
    await sees('[role=dialog] .one', 'the plank')
    await choose('tuning-known', 'Bass')
    await write('#instrument-name', 'the log')
    await click('[role=dialog] button', 'Keep it')
    await sees('[role=dialog]', 'the log')
    await click('[role=dialog] .one button', 'the plank')
    await until(() => document.querySelector<HTMLInputElement>('#tuning')!.value === 'E2,A2,D3,G3,B3,E4')
    await click('summary', 'Measure it')
    await click('.frets button', '9')
    await until(() => document.querySelector<HTMLInputElement>('#comfort')!.value === '100')
    await click('.frets button', '8')
    await choose('rests', 'chord tones only')
    await choose('rests-five', "every note of the chord's scale")
    await click('[role=dialog] button', 'Use this instrument')
    await until(() => !find('[role=dialog]'))
    const kept = await ask<{ comfort: number; rests: string; instruments: { name: string; tuning: string }[] }>('/api/player') // prettier-ignore
    expect([kept.comfort, kept.rests]).toEqual([77, 'strict,five:wide'])
    expect(kept.instruments.map((i) => `${i.name} ${i.tuning}`)).toEqual(['the plank E2,A2,D3,G3,B3,E4', 'the log E1,A1,D2,G2']) // prettier-ignore
  })
})

describe('a set', () => {
  it('is made, put in order and kept', async () => {
    for (const title of ['Short Pier', 'Short Quay'])
      await ask('/api/charts', 'POST', { title, key: 'C', feel: 'straight', tempo: 240, beats: 4, text: '| C7 | F7 |' })
    await visit('/charts')
    await click('header a', 'Sets')
    await click('.p-button', 'New set')
    await until(() => /^\/sets\/\d+$/.test(location.pathname))
    await choose('set-add', 'Short Quay')
    await choose('set-add', 'Short Pier')
    await until(() => all('.set li').length === 2)
    await click('.set li:nth-child(2) .does button', 'earlier')
    await until(() => texts('.set li a')[0] === 'Short Pier')
    await fill('.set li:nth-child(1) .times input', '3')
    const items = async () => (await ask<{ items: { choruses: number }[] }>(`/api${location.pathname}`)).items
    await until(async () =>
      (await items())
        .map((i) => i.choruses)
        .join()
        .startsWith('3,'),
    )
    await click('.set li:nth-child(1) .does button', 'take it out')
    await until(async () => (await items()).length === 1)
    await visit('/sets')
    await sees('.shelf li', '1 chart')
  })
})

it('stays on its address', async () => {
  await focus('main a, main button')
  expect(address()).toBe('/sets')
})
