import { describe, expect, it } from 'vitest'
import type { Ask, Tell } from '../../recording/sound.worker'
import type { Recording } from '../../api/client'
import { address, ask, click, find, keys, open, sees, texts, until, visit } from '../../../testing/open'

/* The workers of a recording, in a document without sound: half a minute that is whole at once, in which two strokes are heard. */
class Worker {
  onmessage?: (e: { data: Tell | { id: number; notes: [] } }) => void
  onerror?: () => void
  private tell = (t: Tell | { id: number; notes: [] }) => setTimeout(() => this.onmessage?.({ data: t }))
  postMessage(a: Ask | { id: number; samples: Float32Array }) {
    if (!('do' in a)) return void this.tell({ id: a.id, notes: [] })
    if (a.do === 'open') {
      this.tell({ is: 'opened', rate: 8000, channels: 1, seconds: 30, picture: false, from: 0 })
      this.tell({ is: 'peaks', at: 0, peaks: new Uint8Array(3000).fill(90) })
      this.tell({ is: 'whole', seconds: 30, loud: -20 })
    } else if (a.do === 'slice') this.tell({ is: 'slice', id: a.id, sides: [new Float32Array(8)], rate: 22050 })
    else if (a.do === 'rows')
      this.tell({ is: 'rows', id: a.id, rows: new Uint8Array(a.columns * (a.high - a.low + 1)) })
    else if (a.do === 'measure') {
      const [some, none] = [new Uint8Array(3000), new Uint8Array(3600)]
      this.tell({ is: 'measured', id: a.id, measured: { onsetRate: 100, onsets: some, low: some, high: some, toneRate: 10, tones: none, bass: none, cents: 0, inTune: 0 } }) // prettier-ignore
    } else if (a.do === 'listen') {
      const stroke = (seq: number, at: number, midi: number) => [
        { seq, kind: 'attack' as const, frame: 0, at },
        { seq: seq + 1, kind: 'settled' as const, of: seq, frame: 0, at: at + 0.03, midi, clarity: 0.97 },
        { seq: seq + 2, kind: 'salience' as const, of: seq, frame: 0, at: at + 0.09, candidates: [[midi, 1] as [number, number]], fresh: 0.8, level: -20 }, // prettier-ignore
      ]
      this.tell({ is: 'noticed', id: a.id, noticed: [...stroke(1, 0.5, 64), ...stroke(4, 1.5, 67)] })
    }
  }
  terminate() {}
}
Object.assign(globalThis, { Worker })
Object.assign(window, { Worker })

await open('/by-ear')
HTMLCanvasElement.prototype.getContext = () => null

const hearing = { cents: 0, beats: 4, anchors: [{ beat: 0, at: 0.5 }, { beat: 32, at: 16.5 }], first: 0, feel: 'shuffle', chords: '| C7 | F7 |', markers: [], from: 0.5, to: 4.5, low: 0, high: 0 } // prettier-ignore
async function recording(title: string, notes: object[] = []) {
  const made = await ask<Recording>('/api/recordings', 'POST', { title, seconds: 30, key: 'C', hearing: { ...hearing, notes } }) // prettier-ignore
  await fetch(`/api/recordings/${made.id}/file`, { method: 'PUT', body: new Blob(['sound']), headers: { 'Content-Type': 'audio/wav' } }) // prettier-ignore
  return made.id
}
const kept = async (id: number) => (await ask<Recording>(`/api/recordings/${id}`)).hearing
const labels = () => [...document.querySelectorAll('.note')].map((n) => n.getAttribute('aria-label') ?? '')
const two = [{ id: 1, at: 0.5, length: 0.4, pitch: 64, sure: 0.9 }, { id: 2, at: 2.5, length: 0.4, pitch: 67, bend: 2, sure: 0.4 }] // prettier-ignore

describe('by ear', () => {
  it('lists recordings with what is known of them, and finds them', async () => {
    await until(() => texts('.row b').some((t) => t.includes('third take')))
    await recording('Quay tape', [{ ...two[0], settled: true }])
    await visit('/charts')
    await visit('/by-ear')
    await sees('.row', 'Quay tape')
    await sees('.row', '0:30 · 120 beats a minute · 1 notes settled')
    await sees('.row', 'its file is not here')
  })

  it('hears the stretch, and its player settles and corrects what is heard', async () => {
    const id = await recording('Heard tape')
    await visit(`/by-ear/${id}`)
    await until(() => find('.heads button', 'Hear it') && !find('.heads button[disabled]', ''))
    await click('.heads button', 'Hear it')
    await until(() => labels().length === 2)
    await until(() => labels()[0]!.startsWith('E over C7, bar 1, beat 1, the 3'))
    document.body.focus()
    ;(document.activeElement as HTMLElement | null)?.blur()
    await keys('.', 'Enter')
    await until(() => texts('header b')[0] === '1 of 2 settled')
    await keys('ArrowUp')
    await until(() => labels()[1]!.startsWith('A♭'))
    await until(async () => (await kept(id)).notes.map((n) => [n.pitch, n.settled]).join() === '64,true,68,true')
    await keys('Control+z')
    await until(() => labels()[1]!.startsWith('G over C7, bar 1, beat 3'))
    await click('.heads button', 'Hear it again')
    await until(() => labels().length === 2) // what is settled is not told again, the guess is
    await keys('Delete')
    await until(() => labels().length === 1)
  })

  it('has a hand take the whole phrase, and anew where a place is fixed', async () => {
    const id = await recording('Neck tape', two)
    await visit(`/by-ear/${id}`)
    await until(() => labels().length === 2 && labels()[1]!.includes('bent up from G, a whole step'))
    await click('.note', '')
    await until(() => document.querySelectorAll('.neck .other').length > 0)
    const other = document.querySelector('.neck .other')!
    const [, string, fret] = /string (\d+), fret (\d+)/.exec(other.getAttribute('aria-label')!)!
    other.dispatchEvent(new MouseEvent('click', { bubbles: true }))
    await until(async () => (await kept(id)).notes.some((n) => n.string === Number(string) && n.fret === Number(fret)))
  })

  it('moves the stretch by its own length, a beat longer and shorter', async () => {
    const id = await recording('Stretch tape')
    await visit(`/by-ear/${id}`)
    await sees('.roll', 'bar 2')
    await keys('ArrowRight')
    await sees('.roll', 'bar 4')
    await until(async () => (await kept(id)).from === 4.5)
    await keys('Shift+ArrowRight')
    await until(async () => (await kept(id)).to === 9)
    await keys('Shift+ArrowLeft', 'ArrowLeft')
    await until(async () => (await kept(id)).from === 0.5 && (await kept(id)).to === 4.5)
  })

  it('takes corrections of beats, chords and markers', async () => {
    const id = await recording('Beat tape')
    await visit(`/by-ear/${id}`)
    await sees('.meta', '120 beats a minute')
    await click('.heads button', 'Beats, chords')
    await click('.card button', 'Half')
    await sees('.meta', '60 beats a minute')
    await click('.card button', 'Twice')
    await sees('.meta', '120 beats a minute')
    await click('.card button', 'later')
    await sees('.meta', 'bar 1 at 0:01.0')
    await click('.heads button', 'Markers')
    await keys('m')
    await until(async () => (await kept(id)).markers.map((m) => m.title).join() === 'here 1')
    await click('.markers li button[aria-label^="take"]', '')
    await until(async () => (await kept(id)).markers.length === 0)
  })

  it('becomes a line, which leads back to where it was heard', async () => {
    const id = await recording('Line tape', two)
    await visit(`/by-ear/${id}`)
    await until(() => labels().length === 2 && !!labels()[0]!.includes('over'))
    await click('header button', 'Make a line')
    await until(() => address().startsWith('/lines/'))
    await sees('main', 'hear it on the record')
    const lines = await ask<{ id: number; title: string }[]>('/api/lines?limit=1')
    const line = await ask<{ heard: object; source: string; text: string }>(`/api/lines/${lines[0]!.id}`)
    expect(line).toMatchObject({ heard: { recording: id, from: 0.5, to: 4.5 }, text: '| C7 | F7 |' })
    expect(line.source).toBe('Line tape, 0:00.5 to 0:04.5')
  })
})
