import { describe, expect, it } from 'vitest'
import { all, ask, choose, click, find, hand, open, sees, texts, until, visit, write } from '../../testing/open'
import type { Lick, Line } from '../api/client'

await open('/lines')

const u32 = (n: number) => [n >> 24, n >> 16, n >> 8, n].map((b) => b & 255)
const text = (s: string) => [...s].map((c) => c.charCodeAt(0))
/** A track of notes, each with those that sound together with it, a quarter each. */
function track(name: string, chords: number[][]) {
  const events = [0, 0xff, 3, name.length, ...text(name)]
  for (const chord of chords) {
    for (const midi of chord) events.push(0, 0x90, midi, 80)
    chord.forEach((midi, i) => events.push(i ? 0 : 96, 0x80, midi, 0))
  }
  events.push(0, 0xff, 0x2f, 0)
  return [...text('MTrk'), ...u32(events.length), ...events]
}
const midi = (...tracks: number[][]) =>
  new File([new Uint8Array([...text('MThd'), ...u32(6), 0, 1, 0, tracks.length, 0, 96, ...tracks.flat()])], 'both.mid')

describe('what cannot be read as it is', () => {
  it('is another part of the file: chosen, it becomes a line', async () => {
    const cluster = [40, 41, 42, 43, 44, 45, 46, 47]
    const tune = [60, 62, 64, 65, 67, 65, 64, 62].map((n) => [n])
    await visit('/lines')
    await click('button', 'Import')
    await until(() => find('[role=dialog] .bring'))
    await hand(midi(track('lead', [cluster, cluster]), track('tune', tune)))
    await sees('[role=dialog] [role=alert]', 'no hand can play')
    expect((find('[role=dialog] .do button', 'Keep it') as HTMLButtonElement).disabled).toBe(true)
    await choose('import-part', 'tune (8 notes)')
    await until(() => !find('[role=dialog] [role=alert]') && find('[role=dialog] .paper svg'))
    await click('[role=dialog] button', 'Keep it')
    await until(() => /^\/lines\/\d+$/.test(location.pathname))
    const line = await ask<Line>(`/api${location.pathname}`)
    expect(line.notes.length).toBe(8)
  })

  it('is a broken bar of a chart, mended where it stands', async () => {
    await visit('/charts')
    await click('button', 'Import')
    await until(() => find('[role=dialog] .bring'))
    await hand(new File(['| C7 | F7 | Zork | G7 |'], 'Broken.txt'))
    await sees('[role=dialog] [role=alert]', 'cannot read "Zork"')
    await until(() => document.querySelector<HTMLTextAreaElement>('#mend-text')?.value.includes('Zork'))
    await write('#mend-text', '| C7 | F7 | Zork7 | G7 |')
    await click('[role=dialog] button', 'Read it again')
    await sees('[role=dialog] [role=alert]', 'Zork7')
    await until(() => document.querySelector<HTMLTextAreaElement>('#mend-text')?.value.includes('Zork7'))
    await write('#mend-text', '| C7 | F7 | C7 | G7 |')
    await click('[role=dialog] button', 'Read it again')
    await until(() => !find('#mend-text') && texts('[role=dialog] h2').some((t) => t.startsWith('Broken')))
    await click('[role=dialog] button', 'Keep it')
    await until(() => /^\/bench\/\d+$/.test(location.pathname))
    await sees('h1', 'Broken')
  })

  it('is tablature that is pasted: it becomes a lick', async () => {
    const rows = [
      'e|--5--8-----|',
      'B|--------8--|',
      'G|-----------|',
      'D|-----------|',
      'A|-----------|',
      'E|-----------|',
    ]
    await visit('/licks')
    await click('button', 'Import')
    await click('[role=dialog] button', 'Paste text')
    await until(() => document.querySelector('#mend-text'))
    await write('#mend-text', rows.join('\n'))
    await click('[role=dialog] .mend button', 'Read it')
    await until(() => !find('#mend-text') && all('[role=dialog] .paper svg').length)
    // It names no chord: those that explain it best are offered, with their reasons, and one is taken.
    expect(texts('[role=dialog] .p-select-label').join()).toMatch(/: lands on/)
    await choose('import-over', 'C7')
    await until(() => texts('[role=dialog] .p-select-label').some((t) => t.startsWith('C7:')))
    await click('[role=dialog] button', 'Keep it')
    await until(() => /^\/licks\/\d+$/.test(location.pathname))
    const lick = await ask<Lick>(`/api${location.pathname}`)
    expect(lick.notes.length).toBe(3)
    expect([lick.chord, lick.ofKey]).toEqual(['7', false])
  })

  it('is mended by what would be read there, at its place', async () => {
    await visit('/charts')
    await click('button', 'Import')
    await until(() => find('[role=dialog] .bring'))
    await hand(new File(['| C7 | F7 | Es7 | G7 |'], 'Elsewhere.txt'))
    await sees('[role=dialog] .problems', 'Es7')
    await click('[role=dialog] .problems button', 'cannot read')
    const field = document.querySelector<HTMLTextAreaElement>('#mend-text')!
    expect(field.value.slice(field.selectionStart, field.selectionEnd)).toBe('Es7')
    await click('[role=dialog] .problems button', 'Write E')
    await until(() => document.querySelector<HTMLTextAreaElement>('#mend-text')?.value.includes('| Eb7 |'))
    await click('[role=dialog] button', 'Read it again')
    await until(() => !find('#mend-text') && texts('[role=dialog] h2').some((t) => t.startsWith('Elsewhere')))
    await click('.p-dialog-close-button', '')
  })

  it('is told with its place, which is shown when it is pressed', async () => {
    await visit('/lines')
    await click('button', 'Import')
    await until(() => find('[role=dialog] .bring'))
    const rows = (fret: string) =>
      ['e', 'B', 'G', 'D', 'A', 'E'].map((n, i) => `${n}|--${i ? '--' : fret}--|`).join('\n')
    await hand(new File([`${rows('5-')}\n\nhere it goes on\n\n${rows('8-')}`], 'words.txt'))
    await click('[role=dialog] .said button', 'line 8')
    await until(() => {
      const field = document.querySelector<HTMLTextAreaElement>('#mend-text')
      return field?.value.slice(field.selectionStart, field.selectionEnd) === 'here it goes on'
    })
    await click('.p-dialog-close-button', '')
    await click('button', 'Import')
    const note = (more: string) =>
      `<note><pitch><step>C</step><octave>4</octave></pitch><duration>4</duration><voice>1</voice>${more}</note>`
    const xml = `<score-partwise><part-list><score-part id="P"><part-name>x</part-name></score-part></part-list><part id="P"><measure number="1"><attributes><divisions>1</divisions></attributes>${note('')}</measure><measure number="2">${note('<notations><ornaments><turn/></ornaments></notations>')}</measure></part></score-partwise>`
    await hand(new File([xml], 'turn.musicxml'))
    await click('[role=dialog] .said button', 'a turn was left out, in bar 2')
    await until(() => document.querySelector('[role=dialog] .paper .pen'))
    await click('.p-dialog-close-button', '')
  })

  it('is brought in wherever it is pasted or dropped, and what is no music is said', async () => {
    await visit('/practice')
    const data = (text: string) => {
      const d = new DataTransfer()
      d.setData('text/plain', text)
      return d
    }
    const paste = (text: string) =>
      document.body.dispatchEvent(
        new ClipboardEvent('paste', { clipboardData: data(text), bubbles: true, cancelable: true }),
      )
    paste('Dear Bea, shall we meet?')
    expect(find('[role=dialog]')).toBeFalsy()
    await until(() => (find('[role=dialog]') ? true : (paste('| C7 | F7 | C7 | G7 |'), false))) // it comes after the first drawing
    await sees('[role=dialog] h2', 'pasted')
    await click('[role=dialog] button', 'Keep it')
    await until(() => /^\/bench\/\d+$/.test(location.pathname))
    const drop = (file: File) =>
      document.body.dispatchEvent(
        Object.assign(new Event('drop', { bubbles: true, cancelable: true }), {
          dataTransfer: { types: ['Files'], files: [file] },
        }),
      )
    await until(() => !find('[role=dialog]'))
    drop(new File(['la la la'], 'words.txt'))
    await sees('.p-toast', 'words.txt is no music that can be read here')
    drop(midi(track('tune', [[60], [62], [64], [65]])))
    await until(() => find('[role=dialog] .bring'))
    await click('.p-dialog-close-button', '')
  })
})
