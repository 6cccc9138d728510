/* What players do most, each walked by the words on the screen alone and counted: every press, each choice in a list as the two that
   it takes, each field that is typed into as one. */
import { describe, expect, it } from 'vitest'
import * as page from '../../testing/open'
import { all, find, open, sees, texts, until, visit } from '../../testing/open'

await open('/bench/6')

let presses = 0
const click = async (css: string, text?: string) => {
  await page.click(css, text)
  presses++
}
const choose = async (id: string, option: string) => {
  await page.choose(id, option)
  presses += 2
}
const write = async (css: string, text: string) => {
  await page.write(css, text)
  presses++
}

const tasks: { name: string; goal: number; from: string; walk: () => Promise<unknown> }[] = [
  {
    name: 'practise this change',
    goal: 1,
    from: '/bench/6?bar=4',
    async walk() {
      await click('.crossing .deeds button', 'Land it')
      await sees('.changes header', 'bars 4–5')
    },
  },
  {
    name: 'practise the arpeggio that is looked at',
    goal: 1,
    from: '/bench/6?bar=9&frets=7-11',
    async walk() {
      await click('.run-card button', 'Land it')
      await sees('.changes header', 'bar 9')
    },
  },
  {
    name: 'one chord alone, round and round',
    goal: 1,
    from: '/practice/6?do=changes',
    async walk() {
      await click('.grid .symbol', 'F7')
      await until(() => location.search.includes('chord=F7'))
    },
  },
  {
    name: 'a lick, learned in its parts',
    goal: 3,
    from: '/bench/6',
    async walk() {
      await click('.rail a', 'Licks')
      await click('.licks a, main li a', 'Two Lanterns')
      await click('header button', 'Learn it')
      await sees('.parts', 'part 1 of')
    },
  },
  {
    name: 'a lick into a chorus',
    goal: 6,
    from: '/bench/6',
    async walk() {
      await click('.rail a', 'Licks')
      await click('.licks a, main li a', 'Two Lanterns')
      await click('header button', 'Through the changes')
      await choose('line-over', 'Slipway Shuffle')
      await click('[role=dialog] button', 'Begin')
      await until(() => /^\/lines\/\d+$/.test(location.pathname) && all('.grid [data-note]').length > 20)
    },
  },
  {
    name: 'prepare an evening',
    goal: 5,
    from: '/bench/6',
    async walk() {
      await click('.rail a', 'Charts')
      await click('header a', 'Sets')
      await click('main li a', 'An evening at the landing')
      await click('header a', 'Prepare it')
      await write('.evening input[type=date]', new Date(Date.now() + 4 * 86_400_000).toLocaleDateString('en-CA'))
      await sees('.evening .said', 'are for the evening in 4 days')
      await page.click('.evening button', 'No evening')
    },
  },
  {
    name: 'hand out a lesson',
    goal: 8,
    from: '/bench/6',
    async walk() {
      await click('.rail a', 'Practice')
      await click('.rooms button', 'Lessons')
      await click('header button', 'Set an assignment')
      await write('#lesson-title', 'Fourths by Monday')
      await click('.p-multiselect:has(#lesson-charts)')
      await click('.p-multiselect-option', 'Slipway Shuffle')
      await click('.p-dialog button', 'An aim')
      await click('.p-dialog button', 'Set it')
      await until(() => texts('.lesson h2').includes('Fourths by Monday'))
      expect(find('.lesson header a[download]')).toBeTruthy()
    },
  },
  {
    name: 'read what a pupil gave back, and hear it',
    goal: 3,
    from: '/bench/6',
    async walk() {
      await click('.rail a', 'Practice')
      await click('.rooms button', 'Lessons')
      await click('.lessons li a, .lessons li button, main li a', 'The quick change by Friday')
      await sees('.results', 'Bar 5 was the hard one')
      expect(all('.results li button').length).toBe(1)
    },
  },
  {
    name: 'from the weakest change of the log to playing it',
    goal: 4,
    from: '/bench/6',
    async walk() {
      await click('.rail a', 'Practice')
      await click('.rooms button', 'Log')
      await click('.changes button')
      await click('.why a', 'Land it')
      await sees('.changes header button', 'bar')
    },
  },
  {
    name: 'a call, answered on the neck',
    goal: 3,
    from: '/bench/6',
    async walk() {
      await click('.rail a', 'Practice')
      await click('.rooms button', 'Calls')
      await until(() => all('.cell').length > 20)
      await click('.cell')
    },
  },
  {
    name: 'a chart from a form, in another key',
    goal: 7,
    from: '/bench/6',
    async walk() {
      await click('.rail a', 'Charts')
      await click('header a, header button', 'New chart')
      await choose('form', 'quick change')
      await choose('key', 'A♭')
      await sees('.preview', 'D♭7')
      await click('button', 'Make chart')
      await sees('h1', 'Twelve-bar, quick change in A♭')
    },
  },
  {
    name: 'a phrase of a solo, kept as a lick',
    goal: 4,
    from: '/lines/1',
    async walk() {
      await until(() => all('.grid [data-note]').length > 10)
      await click('.grid [data-note]')
      await click('.phrase button', 'Keep as a lick')
      await write('[role=dialog] input', 'Short Rope')
      await click('[role=dialog] button', 'Keep')
      await until(() => /^\/licks\/\d+$/.test(location.pathname))
    },
  },
  {
    name: 'somewhere to begin, when new',
    goal: 2,
    from: '/practice/6?do=log',
    async walk() {
      await click('.rail button', 'Help')
      await click('[role=dialog] .ways button', 'See it')
      await sees('.way-in', 'The neck shows the chord of now')
      await page.click(".way-in [aria-label^='leave it']")
    },
  },
]

describe('presses to', () => {
  for (const t of tasks)
    it(`${t.name}: at most ${t.goal}`, async () => {
      await visit('/charts')
      await visit(t.from)
      presses = 0
      await t.walk()
      expect(presses).toBeLessThanOrEqual(t.goal)
      expect(presses).toBeGreaterThan(0)
    })
})
