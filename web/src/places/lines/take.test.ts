import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick, ref } from 'vue'
import type { HeardNote, LineBody, TakeVerdicts } from '../../api/client'

const asked: { heard: HeardNote[]; tempo: number }[] = []
vi.mock('../../api/client', () => ({
  api: {
    POST: (path: string, q: { body: { heard: HeardNote[]; tempo: number } }) => {
      if (path.endsWith('simulate')) return [{ at: 0, pitch: 60 }]
      asked.push(q.body)
      return { good: 'well', verdicts: [] }
    },
  },
  answer: (x: unknown) => Promise.resolve(x),
}))
const { takenVerdicts, useTake } = await import('./useTake')

const turn = () => new Promise((r) => setTimeout(r, 0))
beforeEach(() => void (asked.length = 0))

/* A band whose tick is the time of the page; a pass is a thousand ticks. */
function played() {
  const line = ref<LineBody | undefined>({ title: 'one' } as LineBody)
  const playing = ref(false)
  const pain = ref(false)
  const take = useTake(
    line,
    () => playing.value,
    (at) => (playing.value || at < 9000 ? { tick: at % 1000, pass: Math.floor(at / 1000) } : undefined),
    () => 96.4,
    undefined,
    undefined,
    undefined,
    () => pain.value,
  )
  return { line, playing, take, pain }
}

describe('a take', () => {
  it('is judged when the band stops: where each note began, how long it was, where it was bent to', async () => {
    const { playing, take } = played()
    playing.value = true
    await nextTick()
    take.struck({ midi: 60, channel: 1, at: 100 })
    take.bent({ channel: 1, by: 1.8 })
    take.bent({ channel: 1, by: 0 }) // let down again
    take.released({ midi: 60, channel: 1, at: 400 })
    take.struck({ midi: 64, channel: 2, at: 500 })
    playing.value = false
    await turn()
    expect(asked).toEqual([
      {
        line: { title: 'one' },
        tempo: 96,
        played: { from: 100, to: 660 },
        heard: [
          { at: 100, length: 300, pitch: 61.8 },
          { at: 500, length: 0, pitch: 64 },
        ],
      },
    ])
    expect(take.take.value!.good).toBe('well')
  })

  it('begins anew with each pass and each playing, and is gone when the line is changed', async () => {
    const { line, playing, take } = played()
    playing.value = true
    await nextTick()
    take.struck({ midi: 60, channel: 1, at: 100 })
    take.struck({ midi: 62, channel: 1, at: 1100 }) // the loop has come round
    await turn()
    expect(asked.map((a) => a.heard.map((h) => h.pitch))).toEqual([[60]])
    playing.value = false
    await turn()
    expect(asked.map((a) => a.heard.map((h) => h.pitch))).toEqual([[60], [62]])
    line.value = { title: 'two' } as LineBody
    await nextTick()
    expect(take.take.value).toBeUndefined()
  })

  it('is asked for as far as the band came, and for nothing where it hurt', async () => {
    const { playing, take, pain } = played()
    playing.value = true
    await nextTick()
    take.at({ tick: 0, pass: 0 })
    take.struck({ midi: 60, channel: 1, at: 100 })
    take.at({ tick: 960, pass: 0 })
    playing.value = false
    await turn()
    expect(asked[0]).toMatchObject({ played: { from: 0, to: 1120 } })
    expect(take.played.value).toEqual({ heard: asked[0]!.heard, span: { from: 0, to: 1120 } })
    playing.value = true
    await nextTick()
    take.struck({ midi: 60, channel: 1, at: 100 })
    pain.value = true
    playing.value = false
    await turn()
    expect(asked).toHaveLength(1)
  })

  it('asks nothing where nothing was played, and can be simulated', async () => {
    const { playing, take } = played()
    playing.value = true
    await nextTick()
    playing.value = false
    await turn()
    expect(asked).toHaveLength(0)
    await take.simulate()
    expect(asked[0]!.heard).toEqual([{ at: 0, pitch: 60 }])
  })

  it('shows what was not heard as such, never as wrong', () => {
    const v = (note: number, is: string, when?: string, bend?: string) => ({ note, is, when, bend, off: 0, says: is })
    const shown = takenVerdicts({
      verdicts: [
        v(1, 'right', 'on time'),
        v(2, 'right', 'late'),
        v(3, 'right', 'early'),
        v(4, 'wrong note', 'on time'),
        v(5, 'not heard'),
        v(6, 'right', 'on time', 'flat'),
        v(7, 'right', 'on time', 'true'),
      ],
    } as unknown as TakeVerdicts)
    expect([...shown.values()].map((x) => x.kind)).toEqual([
      'landed',
      'late',
      'early',
      'missed',
      'unheard',
      'missed',
      'landed',
    ])
  })
})
