import { writeMidi } from 'midi-file'
import { describe, expect, it } from 'vitest'
import { address, all, ask, choose, click, fill, find, focus, hand, keys, open, saved, sees, shut, texts, until, visit, write } from '../../../testing/open' // prettier-ignore
import type { LineNote, Study } from '../../api/client'

await open('/lines')

interface Kept {
  text: string
  strings: string
  exercise: string
  notes: (LineNote & Record<string, unknown>)[]
}
const kept = (id: number) => ask<Kept>(`/api/lines/${id}`)
const lineID = async () => {
  await until(() => /^\/lines\/\d+$/.test(location.pathname) && all('.grid [data-note]').length > 0)
  return Number(location.pathname.split('/')[2])
}
const drawn = (n: number) => until(() => new Set(all('.grid [data-note]').map((e) => e.dataset.note)).size === n)
let made = 0
const make = async (more: Record<string, unknown>) =>
  (await ask<{ id: number }>('/api/lines', 'POST', { title: `Loose Ways ${++made}`, key: 'A', feel: 'straight', tempo: 96, beats: 4, text: '| A7 | D7 |', low: 5, high: 9, notes: [], ...more })).id // prettier-ignore

/* The line that was made last is the one that is shown. */
const there = (note = 2) => until(() => all<HTMLInputElement>('h1 input').some((e) => e.value === `Loose Ways ${made}`) && find(`[data-note="${note}"]`)) // prettier-ignore

/* A MIDI file of one track: pitches with their starts, lengths and loudness. */
const played = (title: string, notes: { at: number; long: number; midi: number; loud: number }[], key = 0) => {
  const all = notes
    .flatMap((n) => [
      { at: n.at, type: 'noteOn', noteNumber: n.midi, velocity: n.loud, channel: 0 },
      { at: n.at + n.long, type: 'noteOff', noteNumber: n.midi, velocity: 0, channel: 0 },
    ]) // prettier-ignore
    .sort((a, b) => a.at - b.at || (a.type === 'noteOff' ? -1 : 1))
  let last = 0
  const events = all.map(({ at, ...e }) => {
    const deltaTime = at - last
    last = at
    return { deltaTime, ...e }
  })
  const head = [{ deltaTime: 0, type: 'trackName', text: title }, { deltaTime: 0, type: 'setTempo', microsecondsPerBeat: 600_000 }, { deltaTime: 0, type: 'keySignature', key, scale: 0 }] // prettier-ignore
  const bytes = writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: 960 }, tracks: [[...head, ...events, { deltaTime: 0, type: 'endOfTrack' }]] } as never) // prettier-ignore
  return new File([new Uint8Array(bytes)], 'solo.mid')
}

describe('a line', () => {
  it('is written by hand', async () => {
    await visit('/lines')
    await click('button', 'New line')
    await choose('line-over', 'Slipway Shuffle')
    await choose('line-start', 'empty bars')
    await write('#line-title', 'By hand')
    await click('[role=dialog] button', 'Begin')
    await until(() => /^\/lines\/\d+$/.test(location.pathname) && find('.grid'))
    const id = Number(location.pathname.split('/')[2])
    await until(() => find('.grid .vf-stavenote'))
    await focus('.grid')
    await keys('ArrowDown', 'ArrowDown', '8')
    await drawn(1)
    await keys('ArrowRight')
    await new Promise((r) => setTimeout(r, 900)) // so that the next figure is a fret of its own
    await keys('9')
    await drawn(2)
    await keys('h', 'ArrowRight', 'ArrowUp')
    await new Promise((r) => setTimeout(r, 900))
    await keys('8')
    await drawn(3)
    await keys('+', '+', '+', 'v')
    await saved()
    const { notes } = await kept(id)
    expect(notes.map((n) => [n.string, n.fret, n.start])).toEqual([[3, 8, 0], [3, 9, 480], [2, 8, 960]]) // prettier-ignore
    expect(notes[0]!.length).toBe(480)
    expect([notes[1]!.join, notes[1]!.note]).toEqual(['hammer-on', 'E4'])
    await sees('.note .why', 'chord tone: the 5 of C7')
    // The neck writes too, and undo takes it back.
    await keys('ArrowRight')
    await click("[data-cell='4:10']")
    await drawn(4)
    await click('button', 'undo')
    await drawn(3)
    await click('button', 'redo')
    await drawn(4)
    await saved()
    await visit('/lines')
    await sees('li', '12 bars · 4 notes')
    await click('button', 'delete By hand')
    await sees('.p-toast', '“By hand” is deleted')
    await click('.p-toast button', 'Undo')
    await sees('li', 'By hand')
  })

  it('has phrases that are told by what they do, and kept as licks from where they stand', async () => {
    const { lineBody } = await import('../../api/kept')
    const { report } = await ask<Study>('/api/lines/study', 'POST', lineBody(await ask('/api/lines/1')))
    await visit('/lines/1?panel=landings')
    await until(() => all('.phrases button').length === report.phrases.length)
    expect(texts('.phrases button')).toEqual(report.phrases.map((p) => `${p.name}${p.role ?? ''}`))
    const first = report.phrases[0]!
    await click(`.grid [data-note='${first.first}']`)
    await sees('.phrase', first.says.replaceAll(/♭/g, '♭'))
    await click('.phrase button', 'Keep as a lick')
    await sees('[role=dialog]', 'Keep as a lick')
    await shut()
  })

  it('is doubled in octaves where a hand holds them, and taken back', async () => {
    await visit('/lines/1')
    await click('[role=tab]', 'Dress')
    const drawnNow = () => new Set(all('.grid [data-note]').map((e) => e.dataset.note)).size
    await until(() => drawnNow() > 10)
    const before = drawnNow()
    await click('.form button', 'Double it')
    await until(() => drawnNow() > 1.3 * before)
    await click('button', 'undo')
    await until(() => drawnNow() === before)
    await saved()
  })

  it('is aimed anew by the slider of its blend, and comes back', async () => {
    await visit('/lines/1')
    await click('[role=tab]', 'Blend')
    await sees('.share', 'of 100 chord tones')
    await focus('.blend [role=slider]')
    await keys('End')
    await sees('.share', 'now 100 of 100 chord tones')
    await sees('.turns summary', 'changed')
    await sees('.turns li', 'in place of')
    await focus('.blend [role=slider]')
    await keys('Home')
    await until(() => !find('.turns'))
  })

  it('is an exercise that is laid over the chords', async () => {
    await visit('/lines')
    await click('button', 'New line')
    await choose('line-over', 'Slipway Shuffle')
    await choose('line-start', 'an exercise')
    await click('[role=dialog] button', 'Begin')
    await lineID()
    await drawn(95) // eighths, and a last beat that is held
    await click('[role=tab]', 'Exercise')
    await choose('drill', 'Sixths')
    await sees('.form', 'turned over')
    expect(all('#drill-from').length).toBe(0) // sixths begin where they lie
    await click('button', 'Lay it over the chords')
    await until(() => new Set(all('.grid [data-note]').map((e) => e.dataset.note)).size > 96)
    // By what players call it, and only what acts is asked.
    await click('.p-select:has(#drill)')
    await until(() => all('.p-select-option').length > 50)
    expect(texts('.p-select-option-group')).toEqual(['Arpeggios', 'Triads', "The chord's scale", "The key's scale", 'Together, and in octaves', 'Ways to the next tone', 'Bends']) // prettier-ignore
    await write('.p-select-filter', 'half-diminished')
    await until(() => all('.p-select-option').length === 2)
    await write('.p-select-filter', 'permutations')
    await click('[role=option]', 'The 24 orders')
    await until(() => find('#drill-order') && find('#drill-from'))
    expect(texts('.form label').some((l) => l.includes('downwards'))).toBe(false)
    // How it begins is shown before it is laid; what cannot be is told there.
    await until(() => find('.preview svg .mark, .preview .neck svg') && texts('.preview').join().includes('swing'))
    await choose('drill', 'Up and down')
    expect(all('#drill-into, #drill-beat').length).toBe(0)
    await choose('drill-approach', 'enclosed: scale above, half step below')
    await choose('drill-into', 'the third')
    await choose('drill-land', 'land on the third')
    await until(() => find('#drill-beat') && find('#drill-route'))
    await choose('drill-beat', 'on beat 3 of the last bar')
    await click('button', 'Lay it over the chords')
    // C7 lands on E, F7 on A: each held until beat 3, where a run of half a bar sets out.
    const now = Number(address().match(/lines\/(\d+)/)![1])
    await until(async () => {
      const l = await kept(now)
      const at = (tick: number) => l.notes.find((n) => n.start === tick)
      return at(0)?.note.startsWith('E') && at(0)!.length === 1920 && at(3840)?.note.startsWith('A') && !at(4320)
    })
    await choose('drill-land', 'nothing: from the start')
    await choose('drill-approach', 'nothing')
    await until(() => !find('#drill-into'))
    await click('[role=tab]', 'Blend')
    await sees('.share', 'of 100 chord tones')
  })

  it('stays on the strings of its region, written or as an exercise', async () => {
    const id = await make({ notes: [{ id: 1, start: 0, length: 960, string: 2, fret: 7, note: '' }, { id: 2, start: 960, length: 960, string: 2, fret: 9, note: '' }] }) // prettier-ignore
    await visit(`/lines/${id}`)
    await there()
    await click('[role=tab]', 'Write')
    await choose('wish-strings', 'strings 5 and 2')
    await fill('#wish-low input, input#wish-low', '2')
    await click('.work-panel button', 'Write')
    const stays = async (more: (l: Kept) => boolean) => {
      const l = await kept(id)
      return (
        l.strings === '5,2' && l.notes.length > 2 && l.notes.every((n) => n.string === 5 || n.string === 2) && more(l)
      )
    }
    await until(() => stays(() => true))
    await click('[role=tab]', 'Exercise')
    await click('.work-panel button', 'Lay it over the chords')
    await until(() => stays((l) => l.exercise !== ''))
    await sees('header', 'on 5, 2')
  })

  it('tells a stretch before it is played, and puts it where it fits', async () => {
    const note = (id: number, start: number, fret: number) => ({ id, start, length: 480, string: 4, fret, note: '' })
    const id = await make({ key: 'F', text: '| F7 | F7 |', low: 0, high: 5, palette: 'minor-pentatonic', notes: [note(1, 0, 1), note(2, 480, 3), note(3, 960, 5), note(4, 3840, 1), note(5, 4320, 5)] }) // prettier-ignore
    await visit(`/lines/${id}?panel=landings`)
    await sees('.stretches li', '126 mm, frets 1 to 5: warm up first, or play it at frets')
    await sees('[role=tab]', '1 wide')
    await click('.stretches li button', 'bar 1')
    await sees('.note .hand', 'wide: 126 mm')
    const midi = async () => {
      const l = await kept(id)
      return l.notes.map((n) => [0, 64, 59, 55, 50, 45, 40][n.string!]! + n.fret)
    }
    const before = await midi()
    await click('.stretches li button', 'play it there')
    await until(() => !find('.stretches'))
    await saved()
    await until(async () => (await kept(id)).notes.some((n) => n.string !== 4))
    expect(await midi()).toEqual(before)
  })

  it('has a unison bend written under a note by a key', async () => {
    const id = await make({ key: 'A', text: '| A7 |', low: 5, high: 9, palette: 'minor-pentatonic', notes: [{ id: 1, start: 0, length: 960, string: 1, fret: 5, note: '' }] }) // prettier-ignore
    await visit(`/lines/${id}`)
    await there(1)
    await click('.grid [data-note]')
    await focus('.grid')
    await keys('n')
    await until(async () => (await kept(id)).notes.length === 2)
    const held = async () => (await kept(id)).notes.map((n) => [n.string, n.fret, n.bend ?? 0, n.finger]).sort()
    await until(async () => (await held())[1]?.[3])
    expect(await held()).toEqual([[1, 5, 0, 1], [2, 8, 4, 3]]) // prettier-ignore
  })

  it('is written with a closing, led into, dressed, picked and shown plain', async () => {
    const id = await make({ key: 'C', text: '| C7 | F7 | C7 | C7 | F7 | F7 | C7 | C7 | G7 | F7 | C7 | G7 |', low: 7, high: 11, palette: 'minor-pentatonic', notes: [{ id: 1, start: 0, length: 960, string: 2, fret: 8, note: '' }] }) // prettier-ignore
    await visit(`/lines/${id}?panel=write`)
    await there(1)
    await choose('wish-word', 'box blues')
    await choose('wish-closing', 'turnaround: walking down')
    await click('.do button', 'Write')
    await until(async () => (await kept(id)).notes.length > 20)
    await visit(`/lines/${id}?panel=lick`)
    await click('[aria-label=where] button', 'bars')
    await write('#lick-bars', '1 5 99')
    await sees('.hint', '“99” is no bar of this line')
    await write('#lick-bars', '1 5 9')
    await choose('lick-join', 'chromatic walk')
    const before = (await kept(id)).notes.length
    await click('.do button', 'Put it in')
    await until(async () => (await kept(id)).notes.length !== before)
    await click('.grid [data-note]')
    await click('.do button', 'Lead into this note')
    await until(() => find('.fixes'))
    await visit(`/lines/${id}?panel=dress`)
    await click('.do button', 'Add them')
    await sees('.hint', 'ornamented')
    await saved()
    const full = document.querySelector('.grid')!.innerHTML
    await click("[aria-label='which level is shown and heard'] button", 'plain')
    await until(() => location.search.includes('level=plain'))
    await until(() => document.querySelector('.grid')!.innerHTML !== full)
    expect((await kept(id)).notes.filter((n) => n.trill || n.turn || n.double).length).toBeGreaterThan(0)
    await click('.pickings button', 'strict alternate')
    await until(async () => (await kept(id)).notes.some((n) => n.stroke))
    await click('.do button', 'Take them away')
    await until(
      () => texts("[aria-label='which level is shown and heard'] button").join() === 'ornamented,without bends',
    )
    await click("[aria-label='which level is shown and heard'] button", 'without bends')
    await until(() => location.search.includes('level=unbent'))
  })
})

describe('a drill of bends', () => {
  it('says when it ends, and what is easier', async () => {
    await visit('/lines')
    await click('button', 'New line')
    await choose('line-over', 'Slipway Shuffle')
    await choose('line-start', 'an exercise')
    await click('[role=dialog] button', 'Begin')
    const id = await lineID()
    expect(find('.strain')).toBeFalsy()
    await click('[role=tab]', 'Exercise')
    await choose('drill', 'Half-step bends')
    await click('button', 'Lay it over the chords')
    await until(async () => (await kept(id)).notes.some((n) => n.bend))
    const bends = (await kept(id)).notes.filter((n) => n.bend).length
    const often = Math.max(1, Math.floor(60 / bends))
    await sees('.strain', `After ${often === 1 ? 'one time' : `${often} times`} the band ends: enough for a hand.`)
    await click('.strain button', 'Easier: without bends')
    await until(() => location.search.includes('level=unbent'))
    await sees('.strain', 'fretted')
    await click('.strain button', 'With bends again')
    await sees('.strain', 'enough for a hand')
  })
})

describe('a file', () => {
  it('that was played is marked as guessed until it is settled, and gets chords and another key', async () => {
    await visit('/lines')
    await sees('h1', 'Lines')
    await hand(played('Found', [70, 68, 65, 62, 58].map((midi, i) => ({ at: i * 480 + 40 * (i % 2), long: 400, midi, loud: 90 })), -2)) // prettier-ignore
    await sees('.preview .said', 'places on the neck were found for all notes')
    await click('[role=dialog] button', 'Keep it')
    const id = await lineID()
    await sees('.guesses', '5 of 5 notes guessed')
    await until(() => all('.fret.found').length === 5 && all('text.about').length === 2)
    await sees('.note .guessed', 'Guessed: place')
    await click('.note .guessed button', 'it is right')
    await sees('.guesses', '4 of 5 notes guessed')
    await saved()
    await click('.guesses button', 'all are right')
    await until(() => !find('.fret.found, text.about, .guesses'))
    await click('.unchorded button', 'Write chords')
    await write('#over-text', '| Bb7 Xb7 |')
    await click('[role=dialog] button', 'Change')
    await sees('[role=dialog] [role=alert]', 'Xb7')
    await write('#over-text', '| Bb7 |')
    await click('[role=dialog] button', 'Change')
    await sees('.note h2', 'over B♭7')
    await saved()
    const before = (await kept(id)).notes
    await until(() => !find('[role=dialog]'))
    await click('header button', '1 bar')
    await choose('over-key', 'C')
    await click('[role=dialog] button', 'Change')
    await sees('.note h2', 'over C7')
    await saved()
    expect((await kept(id)).notes.map((n) => [n.string, n.fret])).toEqual(before.map((n) => [n.string, n.fret + 2]))
  })

  it('that sounds as if hammered is proposed so', async () => {
    await visit('/lines')
    await sees('h1', 'Lines')
    await hand(played('Softly', [60, 62, 65, 60].map((midi, i) => ({ at: i * 960, long: 960, midi, loud: i === 1 ? 60 : 100 })))) // prettier-ignore
    await sees('.preview .said', '1 notes sound as if hammered')
    await click('[role=dialog] button', 'Keep it')
    const id = await lineID()
    await sees('.guesses', 'hammered, pulled off or slid into')
    expect((await kept(id)).notes[1]!.join).toBe('hammer-on')
    await click('.guesses button', 'all are right')
    await until(() => !find('.guesses, text.about'))
    await saved()
    expect((await kept(id)).notes[1]!.join).toBe('hammer-on')
  })

  it('that cannot be read says so', async () => {
    await visit('/lines')
    await sees('h1', 'Lines')
    await hand(new File(['<score-partwise><part'], 'bad.musicxml'))
    await sees('.trouble', 'bad.musicxml: this MusicXML cannot be read')
  })
})

describe('the ways to play a note', () => {
  it('are typed, shown in the hand and kept, each with each of its values', async () => {
    const { ways } = await ask<{ ways: { field: string; name: string; key: string; on?: string; values: { is: unknown; name?: string }[] }[] }>('/api/catalogue') // prettier-ignore
    expect(ways.length).toBeGreaterThan(10)
    let at = ''
    let id = 0
    for (const w of ways) {
      let second = 9
      let before = {}
      let more = {}
      if (w.name === 'pull-off') second = 5
      else if (w.field === 'again') [second, before, more] = [7, { bend: 4 }, { bend: 4 }]
      else if (w.on === 'bend') more = { bend: 6 }
      else if (w.on === 'release') more = { bend: 6, release: true }
      else if (w.on === 'vibrato') more = { vibrato: true }
      const now = JSON.stringify([second, before, more])
      if (now !== at) {
        at = now
        id = await make({ notes: [{ id: 1, start: 0, length: 960, string: 2, fret: 7, note: '', ...before }, { id: 2, start: 960, length: 960, string: 2, fret: second, note: '', ...more }] }) // prettier-ignore
        await visit(`/lines/${id}`)
        await there()
        await click('[data-note="2"]')
        await focus('.grid')
      }
      const pressed = () => all('.do button[aria-pressed=true]').map((b) => b.textContent!.trim())
      for (const v of w.values) {
        await keys(w.key)
        await until(() => pressed().includes(`${w.name} ${v.name ?? ''}`.trim()))
      }
      const is = String(w.values.at(-1)!.is)
      await until(async () => String((await kept(id)).notes[1]![w.field]) === is)
      await keys(w.key)
      await until(() => !pressed().some((p) => p.includes(w.name)))
    }
    // What no hand can do is not entered, and said.
    id = await make({ notes: [{ id: 1, start: 0, length: 960, string: 2, fret: 7, note: '' }, { id: 2, start: 960, length: 960, string: 2, fret: 9, note: '' }] }) // prettier-ignore
    await visit(`/lines/${id}`)
    await there()
    await click('[data-note="2"]')
    await focus('.grid')
    await keys('p')
    await sees('.said', 'pull-off of G♯4 in bar 1 was left out: a pull-off goes down, and fret 9 is not below fret 7')
    await saved()
    expect((await kept(id)).notes[1]!.join).toBeUndefined()
    await keys('ArrowLeft', 'ArrowLeft', 'h')
    await sees('.said', 'comes from a note before it on its string')
  })
})

it('is at an address of its own', () => {
  expect(address()).toMatch(/^\/lines\/\d+$/)
  expect(texts('main').length).toBe(1)
})

describe('a line in parts', () => {
  it('asks for its stretches one by one, alone and joined, and is taken for nothing but those', async () => {
    const { lineBody } = await import('../../api/kept')
    const { report } = await ask<Study>('/api/lines/study', 'POST', lineBody(await ask('/api/lines/1')))
    const n = report.parts.length
    expect(n).toBeGreaterThan(2)
    await visit('/lines/1')
    await sees('.meta', '12 bars') // the line before it had one
    await click("[aria-label='Export and more']")
    await until(() => find("[role=menuitem][aria-label='Learn it in parts'][aria-disabled='false']"))
    await click('[role=menuitem]', 'Learn it in parts')
    await sees('.parts', `part 1 of ${n}`)
    await sees('.parts', report.parts[0]!.bars > 1 ? 'bars 1 to' : 'bar 1')
    expect(address()).toContain('parts=yes')
    const { useBand } = await import('../../band/useBand')
    const quarter = 960
    const loop = (a: number, b: number) => ({
      from: report.parts[a]!.from / quarter,
      to: report.parts[b]!.to / quarter,
    })
    await until(() => JSON.stringify(useBand().loop) === JSON.stringify(loop(0, 0)))
    await click("[aria-label='Export and more']")
    await click('[role=menuitem]', 'Have a simulated player play it')
    await sees('.take', 'Try:')
    await until(() => all('.grid [data-verdict]').length === report.parts[0]!.notes.length)
    await click("[aria-label='the next stretch']")
    await sees('.parts', `part 2 of ${n}`)
    await click("[aria-label='the next stretch']")
    await sees('.parts', `parts 1 to 2 of ${n}`)
    await until(() => JSON.stringify(useBand().loop) === JSON.stringify(loop(0, 1)))
    /* From a note, its part is taken up by one press. */
    await click(`.grid [data-note='${report.parts[0]!.notes[1]}']`)
    await click('.note button', 'Land it')
    await sees('.parts', `part 1 of ${n}`)
    await until(() => JSON.stringify(useBand().loop) === JSON.stringify(loop(0, 0)))
    await click("[aria-label='the next stretch']")
    await sees('.parts', `part 2 of ${n}`)
    await visit('/charts')
    await visit('/lines/1?parts=yes') // it is remembered
    await sees('.parts', `part 2 of ${n}`)
    await click('.parts button', 'The whole line')
    await until(() => !find('.parts'))
    await until(() => !useBand().loop)
  })
})
