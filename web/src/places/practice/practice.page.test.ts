import { describe, expect, it } from 'vitest'
import { address, all, ask, choose, click, fill, find, hand, keys, open, saved, sees, shut, texts, until, visit, write } from '../../../testing/open' // prettier-ignore
import type { Call, Catalogue } from '../../api/client'

await open('/practice/6?seed=7&ask=tones&start=fifth&step=5')

const calls = (wish: Record<string, unknown>) => ask<Call[]>('/api/calls', 'POST', { chart: 6, step: 5, ...wish })
const keyOf: Record<string, string> = { R: '1', b3: '3', '3': '3', '5': '5', b7: '7', '7': '7' }
/* A round of calls begins with its place. */
const anew = async (path: string) => {
  await visit('/charts')
  await visit(path)
}
const uncovered = () => !find('.cover')
const spelt = (text: string) => text.replace(/[^A-Za-z0-9]/g, '')

describe('calls', () => {
  it('are answered by name and on the neck; what was wrong, uncovered or skipped is told apart', async () => {
    await until(() => find('.cover'))
    const list = await calls({ kinds: ['tones'], starts: ['fifth'], seed: 7 })
    await sees('.chord', list[0]!.chord)
    await sees('.says', 'from the 5')
    for (const n of list[0]!.notes!) await keys(keyOf[n.degree]!)
    await sees('.verdict', 'Right')
    await until(() => uncovered() && texts('.sum')[0]!.includes('1 of 1'))
    // The next comes by itself; it is found on the neck, with a slip.
    await sees('.chord', list[1]!.chord)
    await until(() => find('.cover'))
    await click('.segments button', 'on the neck')
    await until(() => find('.cell'))
    const right = list[1]!.notes!.map((n) => `${n.places![0]!.string}:${n.places![0]!.fret}`)
    const wrong = all('.cell').map((e) => e.dataset.cell).find((c) => !list[1]!.notes!.some((n) => n.places!.some((p) => `${p.string}:${p.fret}` === c)))! // prettier-ignore
    await click(`[data-cell='${wrong}']`)
    await until(() => find('.slip'))
    for (const cell of right) await click(`[data-cell='${cell}']`)
    await sees('.verdict', 'Right, after a slip')
    await sees('.sum', '1 of 2')
    // Uncovered, it is noted; skipped, it is counted apart.
    await sees('.chord', list[2]!.chord)
    await click('.segments button', 'by name')
    await until(() => find('.cover'))
    await keys('h')
    await until(uncovered)
    for (const n of list[2]!.notes!) await keys(keyOf[n.degree]!)
    await sees('.verdict', 'Uncovered')
    await keys('ArrowRight')
    await until(() => !find('.verdict'))
    await keys('ArrowRight')
    await sees('.sum', '1 of 3 at once')
    await sees('.sum', '1 skipped, not counted')
  })

  it('are led by a foot: a MIDI switch and a key of a page-turner are learned, pressed and forgotten', async () => {
    const device = new EventTarget()
    const press = (...data: number[]) => device.dispatchEvent(Object.assign(new Event('midimessage'), { data }))
    Object.assign(navigator, { requestMIDIAccess: () => Promise.resolve({ inputs: new Map([['a', device]]) }) })
    await anew('/practice/6?seed=7&ask=tones&start=fifth&step=5')
    await until(() => find('.says'))
    await keys('?')
    await click("[aria-label^='learn a pedal for next']")
    press(0x90, 60, 90) // a note is no pedal
    press(0xb0, 64, 127)
    await sees('.pedals', 'switch 64')
    await click("[aria-label^='learn a pedal for show']")
    await keys('F9')
    await sees('.pedals', 'F9')
    await shut()
    const asked = () => texts('.says')[0]! + texts('.chord')[0]!
    const first = asked()
    await until(() => find('.cover'))
    await new Promise((r) => setTimeout(r, 200)) // what comes at once is the same press
    await keys('F9')
    await until(uncovered)
    press(0xb0, 64, 127)
    press(0xb0, 64, 0)
    press(0xb0, 64, 127) // it bounces
    await until(() => asked() !== first)
    const list = await calls({ kinds: ['tones'], starts: ['fifth'], seed: 7 })
    const [one, two] = [list[0]!, list[1]!].map((c) => c.says + c.chord)
    expect(spelt(first)).toBe(spelt(one!))
    expect(spelt(asked()), 'one press, one call').toBe(spelt(two!))
    await keys('?')
    await click("[aria-label='switch 64 no longer does this']")
    await click("[aria-label='F9 no longer does this']")
    await shut()
    const second = asked()
    press(0xb0, 64, 127)
    expect(asked()).toBe(second)
  })

  it('of every kind are asked, covered and answered', async () => {
    const { calls: kinds } = await ask<Catalogue>('/api/catalogue')
    expect(kinds.length).toBeGreaterThanOrEqual(6)
    for (const k of kinds) {
      await anew(`/practice/6?seed=3&ask=${k.id}&step=5`)
      const c = (await calls({ kinds: [k.id], seed: 3 }))[0]!
      await until(() => address().includes(`ask=${k.id}`) && texts('.says')[0])
      await sees('.says', c.says)
      if (c.reads) await until(() => find('.note svg .vf-notehead'))
      if (c.sought) {
        await until(() => find('.cell'))
        for (const n of c.notes.toReversed()) await click(`[data-cell='${n.places[0]!.string}:${n.places[0]!.fret}']`)
        await sees('.verdict', 'Right')
      } else if (c.notes.length) {
        for (const n of c.notes) await click(`[data-answer='${n.degree}']`)
        await sees('.verdict', 'Right')
      }
      if (!c.answer) continue
      // What is offered is what can be pressed, and one of them is right.
      await until(() => c.options!.every((o) => find(`[data-answer='${o}']`)))
      await click(`[data-answer='${c.answer}']`)
      await sees('.verdict', 'Right')
    }
  })

  it('ask more where they go well and less where they do not, or stay where they are put', async () => {
    const { callSteps } = await ask<Catalogue>('/api/catalogue')
    await anew('/practice/6?seed=3&ask=place')
    await until(() => find('.step'))
    while (!texts('.step')[0]!.startsWith('3'))
      await click(`[aria-label='${texts('.step')[0]! < '3' ? 'harder' : 'easier'}']`)
    await sees('.step', `3 of ${callSteps.length - 1}: ${callSteps[2]!.name}`) // a rhythm is asked where it is played
    await click("[aria-label='harder']")
    await sees('.step', `4 of ${callSteps.length - 1}`)
    await sees('.step', 'harder')
    await click("[aria-label='easier']")
    await sees('.step', callSteps[2]!.name)
    await until(() => find('.given'))
    const wrong = async () => {
      const says = texts('.says')[0]! + texts('.chord')[0]!
      for (const key of ['1', '2', '3', '4', '5', '6', '7', '8', '9', '0', '-', '=']) {
        if (find('.verdict')) break
        await keys(key)
      }
      await until(() => find('.verdict'))
      await keys('ArrowRight')
      await until(() => !find('.verdict') && texts('.says')[0]! + texts('.chord')[0]! !== says)
    }
    for (let i = 0; i < 6 && !texts('.step')[0]!.startsWith('2'); i++) await wrong()
    await sees('.step', callSteps[1]!.name)
    await sees('.step', 'easier')
    await anew('/practice/6?seed=3&ask=place')
    await sees('.step', callSteps[1]!.name) // it is remembered
    await anew('/practice/6?seed=3&ask=place&step=6')
    await sees('.step', callSteps[5]!.name)
    expect(find("[aria-label='harder'][disabled]")).toBeTruthy()
  })

  it('turned round are answered by keys, and a slip is a slip', async () => {
    const row = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '0', '-', '=']
    await anew('/practice/6?seed=5&ask=place&step=5')
    const c = (await calls({ kinds: ['place'], seed: 5 }))[0]!
    await until(() => find('.given'))
    await sees('.says', 'which degree?')
    await keys(row[c.options!.indexOf(c.answer!)]!)
    await sees('.verdict', 'Right')
    await anew('/practice/6?seed=4&ask=bend&step=5')
    const bend = (await calls({ kinds: ['bend'], seed: 4 }))[0]!
    await until(() => find('.given'))
    await sees('.says', 'how far up to the')
    await click(`[data-answer='${bend.options!.find((o) => o !== bend.answer)}']`)
    await until(() => find('.keys .slip'))
    await keys(bend.answer!)
    await sees('.verdict', 'Right, after a slip')
  })

  it('that cannot be asked say why', async () => {
    await visit('/practice/6?ask=tones&frets=7-11&strings=1-1')
    await sees('.trouble', 'allow more strings')
    await visit('/practice/99')
    await sees('h1', 'Nothing can be asked here')
    expect(find('a[href="/charts"]')).toBeTruthy()
  })
})

describe('the ways to practise', () => {
  it('say what they ask, in order, and are judged', async () => {
    const { modes } = await ask<{ modes: { id: string; with?: string; stages: string[]; writes?: boolean }[] }>('/api/catalogue') // prettier-ignore
    expect(modes.length).toBeGreaterThan(10)
    for (const m of modes) {
      if (m.with) {
        await visit(`/practice/6?do=changes&mode=${m.id}`)
        await sees('.hint', `Choose above which ${m.with}`)
      }
      await visit(`/practice/6?do=changes&mode=${m.id}${m.with ? '&with=1' : ''}`)
      for (const [i, says] of [...m.stages, m.stages.at(-1)!].entries()) {
        await sees('.stage', says)
        await click('footer button', 'Have a simulated player play it')
        await until(() => find('.result') && (i < 1 || all('.choruses li').length === i + 1))
      }
    }
    await visit('/practice/6?do=changes&mode=twelve-keys')
    await sees('.grid li:nth-child(12)', 'G7')
    await sees('.strip', 'Through the twelve keys')
    await visit('/practice/6?do=changes&mode=imagined')
    await sees('.grid li:nth-child(11)', 'Em7')
    await until(() => !texts('.strip')[0]!.includes('twelve keys'))
    await click('.tick-box', 'climb in tempo')
    await sees('.tick-box', 'comes clean: 96')
    await visit('/practice/6?do=changes&mode=tones')
    await until(() => document.querySelector<HTMLInputElement>('.tick-box input')?.checked === false) // each has a ladder of its own
    await visit('/practice/99?do=changes')
    await sees('h1', 'Nothing can be played here')
  })

  it('are held to limits, one a chorus and then all, which are told and judged', async () => {
    await visit('/practice/6?do=changes&mode=land')
    await click('.limits')
    await click('.kind .tick-box', 'few notes')
    await click('.kind .p-select')
    await click('[role=option]', 'at most one note a bar')
    await click('.kind .tick-box', 'some strings')
    await sees('.choice', 'One of them in each chorus')
    await until(() => decodeURIComponent(address()).includes('hold=strings;few:1') || decodeURIComponent(address()).includes('hold=few:1;strings')) // prettier-ignore
    await click('.limits')
    await until(() => !find('.choice'))
    await sees('.held', 'at most one note a bar')
    expect(find('.held small')).toBeFalsy() // it stays as it is
    await click('footer button', 'Have a simulated player play it')
    await sees('.result', 'Held to:')
    await click('footer button', 'Have a simulated player play it')
    await until(() => texts('.held')[0]!.startsWith('strings'))
    await click('footer button', 'Have a simulated player play it')
    await until(() => /note a bar.*strings/.test(texts('.held')[0]!))
    await visit('/practice/6?do=changes&mode=bends') // what is written is the limit
    await sees('.stage', 'each tone fretted')
    expect(find('.limits')).toBeFalsy()
  })

  it('loop one chord by a press on it, in the place of the chart', async () => {
    for (const mode of ['land', 'widening', 'bends', 'imagined']) {
      await visit(`/practice/6?do=changes&mode=${mode}`)
      await until(() => all('.grid li').length === 12)
      await click('.grid .symbol', 'F7')
      await until(() => all('.grid li').length === 4)
      expect(new Set(texts('.grid .symbol').map(spelt))).toEqual(new Set([spelt('F7')]))
      await until(() => !address().includes('play=yes') && address().includes('chord=F7')) // the band was told to begin
      await keys('l')
      await until(() => all('.grid li').length === 12)
    }
  })

  it('have the band drop its chords, and leave what the player set', async () => {
    const { useBand } = await import('../../band/useBand')
    const band = useBand()
    await visit('/practice/6?do=changes&mode=dropped')
    await until(() => band.dropped)
    await click('.rooms button', 'Calls')
    await until(() => !band.dropped)
    expect(band.settings.dropChords).toBe(false)
  })

  it('show what is written, but not what is to be found by ear', async () => {
    const drawn = () => new Set(all('.sheet [data-note]').map((e) => e.dataset.note)).size
    await visit('/practice/6?do=changes&mode=bends')
    await until(() => drawn() >= 11)
    await visit('/practice/6?do=changes&mode=fours')
    await until(() => all('.grid li').length === 24)
    expect(find('.sheet')).toBeUndefined()
    await sees('.strip', 'Trading fours')
    await click('footer button', 'Have a simulated player play it')
    await until(() => find('.result'))
    expect(all('[data-landing]').length, 'the player’s bars alone are judged').toBe(12)
    await click('header button', 'Something else')
    await until(() => !find('.result'))
  })

  it('keep choruses as takes, which are compared and made lines', async () => {
    await visit('/practice/6?do=changes&mode=thirds')
    await sees('.stage', 'the third on every change')
    for (const n of [1, 2]) {
      await click('footer button', 'Have a simulated player play it')
      await until(() => find('.result') && (n < 2 || all('.choruses li').length === 2))
    }
    expect(all('[data-landing]').length).toBe(9) // every change of the form
    await keys('k')
    await sees('.result', 'Kept 2')
    const had = (await ask<unknown[]>('/api/takes')).length
    await visit('/practice/6?do=takes')
    await until(() => all('.takes li').length === had)
    await until(() => all('.compared article').length === 1 && find('.compared [data-note]'))
    await click('.takes li:nth-child(2) .name')
    await until(() => all('.compared article').length === 2)
    await sees('.difference', '% of the changes')
    await click('.takes li [aria-label^=delete]')
    await until(() => all('.takes li').length === had - 1)
    await click('.takes li [aria-label^="make a line"]')
    await until(() => location.pathname.startsWith('/lines/') && find('.grid [data-note]'))
    await until(() => all<HTMLInputElement>('header input').some((i) => i.value.includes('Played over') || i.value.includes('land on thirds'))) // prettier-ignore
  })
})

describe('today', () => {
  const titles = () => all('.items .title').map((e) => e.firstElementChild!.textContent!.trim())

  it('plans an evening that is changed by hand', async () => {
    await visit('/practice/6?do=today')
    await until(() => all('.items li').length >= 5)
    const before = titles()
    await click(".items li:nth-child(3) [aria-label^='something else']")
    await until(() => titles()[2] !== before[2])
    expect(titles().slice(0, 2)).toEqual(before.slice(0, 2))
    await click(".items li:nth-child(1) [aria-label^='a minute less']")
    await sees('header', '19 minutes')
    await click(".items li:nth-child(3) [aria-label^='keep']")
    const kept = titles()[2]!
    await click('header button', 'Plan anew')
    await until(() => titles().includes(kept))
    await click('header .segments button', '45')
    await until(() => all('.items .kind').length >= 9)
  })

  it('is made of the charts of an evening, whose day is kept', async () => {
    await visit('/practice/6?do=today&for=6,1')
    await sees('.evening', 'On which day?')
    await until(() => !location.search.includes('for='))
    const day = (n: number) => new Date(Date.now() + n * 86_400_000).toLocaleDateString('en-CA')
    await write('.evening input[type=date]', day(3))
    await sees('.evening .said', 'minutes are for the evening in 3 days')
    await until(() => all('.evening .ready li').length === 2)
    await sees('.items', 'through, as on the evening')
    await visit('/charts')
    await visit('/practice/6?do=today')
    await sees('.evening .said', 'in 3 days') // it is kept
    await write('.evening input[type=date]', day(0))
    await sees('.evening .said', 'it is today: everything is played through')
    await write('.evening input[type=date]', day(-2))
    await sees('.evening .said', 'that day has passed')
    await click('.evening button', 'No evening')
    await until(() => !find('.evening .said') && !find('.evening .ready'))
  })

  it('knows its players', async () => {
    await visit('/practice/6?do=today')
    await click('header button', 'Player')
    await write('.players input', 'player')
    await click('.players button', 'Another player')
    await sees('.players .trouble', 'of that name already')
    await write('.players input', 'player two')
    await click('.players button', 'Another player')
    await sees('header', 'player two')
    // What is done from now on is theirs.
    const { here } = await import('../../memory/here')
    expect(here.player).toBe((await ask<{ id: number; here: boolean }[]>('/api/players')).find((p) => p.here)!.id)
    await sees('main', 'Nothing is known yet')
    await click('header button', 'player two')
    await click(".players [aria-label^='remove']")
    await until(() => texts('header button').includes('Player'))
    await until(() => find('.told', 'player two')?.querySelector('button')?.click() ?? find('.told', 'player two'))
    await until(async () => (await ask<unknown[]>('/api/players')).length === 2)
  })
})

describe('the log', () => {
  it('has lines that are taken out and put back', async () => {
    const total = async () => (await ask<{ total: number }>('/api/log')).total
    await visit('/practice/6?do=log')
    await until(() => all('.lines li').length === 12)
    const [before, first] = [await total(), texts('.lines li')[0]!]
    await click('.lines li:first-child button')
    await until(async () => (await total()) === before - 1)
    const toasts = texts('.p-toast-message')
    expect(toasts.at(-1)).toContain('is deleted')
    await until(() => texts('.lines li')[0] !== first)
    await click('.p-toast-message:last-child button', 'Undo')
    await until(async () => (await total()) === before)
    await until(() => texts('.lines li')[0] === first)
    await click('section.whole > button', 'Older lines')
    await until(() => all('.lines li').length > 12)
  })

  it('is maps: a spot tells what is behind it, and leads to practising it', async () => {
    await visit('/practice/6?do=log')
    await until(() => all('.wheel .cell').length === 60)
    await click(".wheel [data-cell='C 1']")
    await sees('.why h2', 'C, frets 0 to 4, C shape')
    await until(() => all('.why li').length >= 3)
    await click('.why a', 'Practise this')
    await until(() => new URLSearchParams(location.search).get('keys') === 'C' && find('.call .chord'))
    await visit('/practice/6?do=log')
    await click('.changes button')
    await sees('.why h2', 'right at once')
    /* What stands beside each line is of this change alone, and adds up to no more than the whole. */
    await until(() => /^\d+ of \d+$/.test(texts('.why li b')[0] ?? ''))
    const figures = (text: string) => /(\d+) of (\d+)/.exec(text)!.slice(1).map(Number)
    const [right, of] = figures(texts('.why h2')[0]!)
    const lines = texts('.why li b').map(figures)
    expect(lines.every(([r, n]) => r! <= n!)).toBe(true)
    expect(lines.reduce((sum, [r]) => sum + r!, 0)).toBeLessThanOrEqual(right!)
    expect(lines.reduce((sum, [, n]) => sum + n!, 0)).toBeLessThanOrEqual(of!)
    const change = texts('.why h2')[0]!.split(' to ')[0]!
    await click('.why a', 'Land it')
    await until(() => location.search.includes('do=changes') && !location.search.includes('play='))
    await sees('.changes header button', 'bar')
    const round = all('.grid li:not(.aside) .symbol').map((e) => e.textContent?.trim())
    expect(round[0]).toBe(change)
    expect(round.length).toBeLessThanOrEqual(4)
    history.back()
    await until(() => all('.wheel .cell').length === 60)
    const whole = texts('header .soft')[0]
    await click('.segments button', 'a week')
    await until(() => texts('header .soft')[0] !== whole)
    await until(() => all('[aria-label="strings and positions"] button').length > 0)
    await click("[aria-label='degrees and directions'] button")
    await until(() => texts('.why h2')[0]!.includes('ward'))
    await sees('figcaption', 'the newest take on top')
    await until(() => document.querySelector('svg[aria-label^="minutes played"] rect'))
    expect(await ask<string>('/api/log/files/csv')).toContain('Slipway Shuffle')
  })
})

describe('lessons', () => {
  const given = async (link: string, name: string) => {
    const at = new URL((await until(() => document.querySelector<HTMLAnchorElement>(link)))!.href)
    const got = await ask<unknown>(at.pathname + at.search)
    return new File([typeof got === 'string' ? got : JSON.stringify(got)], name)
  }

  it('are set, opened by another player, and returned', async () => {
    await visit('/practice/6?do=lessons')
    await sees('.lesson h2', 'The quick change by Friday') // the demo's own
    await click('header button', 'Set an assignment')
    await write('#lesson-title', 'Thirds by Friday')
    await write('#lesson-words', 'Slowly at first.')
    await click('.p-multiselect:has(#lesson-charts)')
    await click('.p-multiselect-option', 'Slipway Shuffle')
    await click('.p-dialog button', 'An exercise')
    await sees('.set legend', 'Exercise 1')
    const pick = async (label: string, option: string) => {
      await click(`.set .p-select:has([aria-label='${label} of exercise 1'])`)
      await click('[role=option]', option)
    }
    await pick('Lead in', 'a half step below')
    await pick('Start', 'from the 3')
    await pick('strings', '4 and 3')
    await click('.p-dialog button', 'An aim')
    await sees('.p-dialog', 'Aim 1')
    await click('.p-dialog button', 'Set it')
    await sees('.lesson h2', 'Thirds by Friday')
    await sees('.things', 'Up and down')
    await sees('.aims', 'Slipway Shuffle, Land on chord tones: 80 % of the changes met, 2 times in a row')
    const lesson = await given('.lesson header a', 'thirds.undaris.json')
    const task = JSON.parse(await lesson.text()).exercises[0].task
    expect(task).toMatchObject({ drill: 'run', approach: 'below', from: '3', strings: [4, 3] })
    await visit('/practice/6?do=today')
    await click('header button', 'Player')
    await write('.players input', 'Bram')
    await click('.players button', 'Another player')
    await sees('header', 'Bram')
    await visit('/practice/6?do=lessons')
    await sees('h1', 'No lessons yet')
    await hand(new File(['{"kind": "a song"}'], 'song.json'))
    await sees('.trouble', 'song.json: this is no file of Undaris')
    await hand(lesson)
    await sees('.lesson h2', 'Thirds by Friday')
    await sees('.lesson .words', 'Slowly at first.')
    await sees('.aims', 'not tried yet')
    // It is done: the plan asks for it, the aim leads to where it is practised, a simulated player may stand in.
    await visit('/practice/6?do=today')
    await until(() => texts('.items .why').some((t) => t.includes('Player asks for it')))
    await click('header button', 'Start')
    await sees('.plan-strip', 'of')
    await visit('/practice/6?do=lessons')
    await click('.aims a', 'Practise')
    await until(() => new URLSearchParams(location.search).get('mode') === 'land')
    const reached = async () => (await ask<{ reached: number }[]>('/api/assignments'))[0]!.reached === 1
    for (let i = 0; i < 20 && !(await reached()); i++) {
      // it errs as it likes
      await click('footer button', 'Have a simulated player play it')
      await until(() => find('.result') && (i < 1 || all('.choruses li').length === Math.min(8, i + 1)))
      await new Promise((r) => setTimeout(r, 100)) // until it is noted
    }
    await visit('/practice/6?do=lessons')
    await sees('.aims', 'reached, ')
    await until(() => find('.aims .tick.reached'))
    await write('.return textarea', 'Harder than it looks')
    await until(() => decodeURIComponent(document.querySelector<HTMLAnchorElement>('.return a')!.href).includes('looks')) // prettier-ignore
    const back = await given('.return a', 'results.undaris.json')
    await visit('/practice/6?do=today')
    await click('header button', 'Bram')
    await click('.players button', 'Player')
    await until(() => texts('header button').includes('Player'))
    await visit('/practice/6?do=lessons')
    await sees('.lesson', 'Give the file to a pupil')
    await hand(back)
    await sees('.results h3', 'Bram')
    await sees('.results .words', 'Harder than it looks')
    await sees('.aims .far', 'Bram reached')
    await sees('.results', '1 of 1 reached')
  })

  it('hold an aim of every kind that there is', async () => {
    const { aims } = await ask<Catalogue>('/api/catalogue')
    expect(aims.length).toBeGreaterThan(4)
    await visit('/practice/6?do=lessons')
    await click('header button', 'Set an assignment')
    await write('#lesson-title', 'Everything at once')
    for (const [list, first] of [
      ['charts', 'Slipway Shuffle'],
      ['lines', 'Slipway, first chorus'],
    ] as const) {
      await click(`.p-multiselect:has(#lesson-${list})`)
      await click('.p-multiselect-option', first)
      await keys('Escape')
      await until(() => !document.querySelector('.p-multiselect-option'))
    }
    await click('.p-dialog button', 'An exercise')
    for (const [i, kind] of aims.entries()) {
      await click('.p-dialog button', 'An aim')
      await sees('.p-dialog', `Aim ${i + 1}`)
      await click(`[aria-label="kind of aim ${i + 1}"]`)
      await until(() => all('[role=option]').length === aims.length)
      await click('[role=option]', kind.name)
      await until(() => !document.querySelector('[role=option]'))
      const asked = ['mode', 'key', 'degree', 'percent', 'tempo'].filter((what) => document.querySelector(`[aria-label="${what === 'mode' ? 'way' : what} of aim ${i + 1}"]`)) // prettier-ignore
      expect(asked.sort(), kind.id).toEqual([...kind.asks].sort())
    }
    await click('.p-dialog button', 'Set it')
    await sees('.lesson h2', 'Everything at once')
    await until(() => all('.aims .aim').length === aims.length)
    expect(texts('.aims .aim').filter((t) => t.includes('another kind'))).toEqual([])
  })
})

describe('licks', () => {
  it('are typed, kept, tried elsewhere and found', async () => {
    await visit('/licks')
    await click('button', 'New lick')
    await write('#lick-title', 'Bowline')
    await write('#lick-text', 'R/e 9/e huh')
    await click('[role=dialog] button', 'Keep it')
    await sees('[role=dialog] .trouble', 'is no degree')
    await write('#lick-text', 'R/e 9/e b3/e 3/es 5/q~')
    await write('#lick-tags', 'blend, mine')
    await click('[role=dialog] button', 'Keep it')
    await until(() => document.querySelector<HTMLInputElement>('h1 input')?.value === 'Bowline')
    await sees('.ways', 'the same shape, moved')
    await until(() => document.querySelectorAll('.ways svg .vf-stavenote').length >= 10)
    await fill('[aria-label=chord]', 'Zork')
    await sees('.trouble', 'cannot read')
    await fill('[aria-label=chord]', 'Am7')
    await click('label', 'degrees follow the chord')
    await until(() => texts('.ways svg text').includes('Am7'))
    await visit('/licks?find=mine')
    await until(() => all('.card').length === 1)
  })

  it('are changed where they stand, and gone back through by name', async () => {
    await visit('/licks/40')
    await until(() => find('.lick [data-note]'))
    const lick = () => ask<{ title: string; text: string }>('/api/licks/40')
    const { title } = await lick()
    await write('input.name', 'Capstan')
    await until(async () => (await lick()).title === 'Capstan')
    await click('button', 'Change')
    const notes = () => document.querySelector<HTMLTextAreaElement>('#lick-notes')!
    const before = (await until(() => notes())).value
    await write('#lick-notes', 'R/e b3/es 3/e huh')
    await sees('.fields [role=alert]', 'huh')
    await until(() => texts('header [role=status]')[0]!.startsWith('not saved yet'))
    await write('#lick-notes', 'R/e b3/es 3/e 5/q')
    await until(() => new Set(all('.lick > .sheet [data-note]').map((e) => e.dataset.note)).size === 4)
    await until(async () => (await lick()).text === 'R/e b3/es 3/e 5/q')
    await click('button', 'undo notes')
    await until(() => notes().value === before)
    await click('button', 'undo title')
    await until(async () => (await lick()).title === title)
    await saved()
  })

  it('become a chorus through the changes', async () => {
    await visit('/licks?tag=box')
    await click('.card a', 'Gangway')
    await until(() => document.querySelector<HTMLInputElement>('h1 input')?.value === 'Gangway')
    await click('button', 'Through the changes')
    await choose('line-over', 'Twelve-bar, quick change (form)')
    await choose('line-key', 'B♭')
    await click('[role=dialog] button', 'Begin')
    await until(() => /^\/lines\/\d+$/.test(location.pathname) && find('.grid [data-note]'))
    const line = () => ask<{ text: string; notes: { id: number; start: number; fret: number; length: number }[] }>(`/api${location.pathname}`) // prettier-ignore
    expect((await line()).text).toBe('| Bb7 | Eb7 | Bb7 | Bb7 |\n| Eb7 | Eb7 | Bb7 | Bb7 |\n| F7 | Eb7 | Bb7 | F7 |')
    await click('[role=tab]', 'landed')
    await sees('.report small', '7 of 9 changes') // each version starts where the lick does
    const n = (await line()).notes.find((x) => x.start === 4 * 3840)!
    await click(`[data-note='${n.id}']`)
    await sees('.note .why', 'lands the change')
    expect(n.fret).toBe(11)
    await keys('9') // one figure: the eleventh, which leads nowhere
    await sees('.report small', '6 of 9 changes')
    await click('.report ol button', 'bar 5')
    await sees('.fixes', 'Take it')
    await click('.fixes button', 'Take it')
    await sees('.report small', '7 of 9 changes')
    await click(".grid [data-measure='10']")
    await until(() => document.querySelectorAll('.grid rect.locked').length === 1)
    await saved()
    const was = (await line()).notes
    await click('[role=tab]', 'Write')
    await fill('#wish-from', '9')
    await click('button', 'Another')
    await until(async () => JSON.stringify((await line()).notes) !== JSON.stringify(was))
    const stays = (list: typeof was) => list.filter((x) => x.start >= 0 && (x.start < 8 * 3840 || Math.floor(x.start / 3840) === 9)).map((x) => [x.start, x.fret, x.length]) // prettier-ignore
    expect(stays((await line()).notes)).toEqual(stays(was))
  })
})

describe('what is asked for anywhere', () => {
  it('is listed under Help, and belongs to the dialog while it is open', async () => {
    await visit('/bench/6?bar=1')
    await sees('.crossing .now', 'C7')
    await keys('?')
    await sees('[role=dialog]', 'another target for the next change')
    await sees('[role=dialog]', 'stop on pain or numbness')
    await keys('ArrowRight')
    expect(address()).not.toContain('bar=2')
    await shut()
    await sees('.crossing .now', 'C7')
  })

  it('turns the look, and keeps it', async () => {
    const look = document.documentElement.dataset.theme
    await keys('s')
    await until(() => document.documentElement.dataset.theme !== look)
    await keys('s')
    await until(() => document.documentElement.dataset.theme === look)
  })
})
