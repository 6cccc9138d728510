/* A recording is put in the band's place over its chart, or taken away again. */
import { useQueryClient } from '@tanstack/vue-query'
import { ref, watch } from 'vue'
import { answer, api, type ChartRow } from '../api/client'
import { askRecording, fileOf } from '../api/recordings'
import { useBand } from '../band/useBand'
import { metreOf } from '../music/metre'
import { RecordInBand } from './inBand'
import { beatAt, secondOf } from './inHand'
import { muchOf, overChart } from './overChart'
import { Sound } from './sound'

/** Half a step beneath the lowest string of a guitar up to what its last fret is bent to: what is listened for. */
const guitar: [number, number] = [39, 89]

export function useInBand() {
  const band = useBand()
  const queries = useQueryClient()
  const trouble = ref('')
  const opening = ref(false)

  async function inBand(id: number, chart: Pick<ChartRow, 'id' | 'beats' | 'bars' | 'lengths'>) {
    const r = await queries.fetchQuery({
      queryKey: ['recording', id],
      queryFn: () => answer(api.GET('/api/recordings/{id}', { params: { path: { id } } })),
    })
    const h = r.hearing
    if (!r.bytes) throw new Error(`“${r.title}” has no file here: open it under By ear first.`)
    if (r.chart !== chart.id)
      throw new Error(`“${r.title}” does not play this chart: say so under its beats and chords.`)
    const metre = metreOf(chart)
    const course = overChart(h, metre, r.seconds || h.anchors.at(-1)?.at || 0)
    if (!course)
      throw new Error(`Where the beats of “${r.title}” fall is not known yet: find or tap them under By ear.`)
    const sound = new Sound(fileOf(r))
    return new RecordInBand(id, chart.id, r.title, muchOf(course, metre), {
      pieces: { slice: (a, b) => sound.slice(a, b), seconds: () => sound.seconds.value, loud: () => sound.loud.value },
      read: (progress) =>
        new Promise((done, fail) => {
          sound.open(Math.max(0, secondOf(h.anchors, course.top)! - 2))
          const stop = watch(
            () => [sound.whole.value, sound.trouble.value] as const,
            ([whole, why]) => {
              if (!whole && !why) return progress(0.5)
              stop()
              if (whole) done()
              else fail(new Error(why))
            },
          )
        }),
      listen: async (from, to) => {
        const notes = await askRecording.notes(await sound.listen(from, to, guitar), { ...h, low: 0, high: 0 }, [])
        return notes.map((n): [number, number] => [beatAt(h.anchors, n.at)!, Math.round(n.pitch + (n.bend ?? 0))])
      },
      beats: h.anchors,
      course,
      length: metre.length,
      pitch: -h.cents / 100,
      close: () => sound.close(),
    })
  }

  let wanted = 0
  return {
    trouble,
    opening,
    /** 0 is our own band. */
    async choose(id: number) {
      const mine = ++wanted
      const chart = band.chart
      trouble.value = ''
      if (!id || !chart) return band.withRecord(undefined)
      opening.value = true
      try {
        const record = await inBand(id, chart)
        if (mine === wanted && band.chart?.id === chart.id) band.withRecord(record)
        else record.close()
      } catch (e) {
        trouble.value = e instanceof Error ? e.message : String(e)
      }
      if (mine === wanted) opening.value = false
    },
  }
}
