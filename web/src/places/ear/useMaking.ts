/* What becomes of the stretch: a line or a lick, which keep where they were heard, and of the chords a chart. */
import { computed, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'
import { answer, api, type LickBody } from '../../api/client'
import { askLine, useLineChanges } from '../../api/kept'
import { useLanding } from '../../listen/landing'
import { clock } from '../../recording/inHand'
import type { RecordingWork } from './useRecordingWork'

export function useMaking(work: RecordingWork, id: { value: number }) {
  const router = useRouter()
  const land = useLanding()
  const lines = useLineChanges()
  const trouble = ref('')
  const keeping = ref(false)
  const kept = shallowRef<LickBody>()
  const where = () => {
    const s = work.stretch.value!
    return `${work.body.value!.title}, ${clock(s.from)} to ${clock(s.to)}`
  }
  const heard = () => ({ recording: id.value, ...work.stretch.value! })
  const body = () => {
    const line = work.heard.value?.line
    return (
      line && {
        ...line,
        title: where().slice(0, 160),
        source: where().slice(0, 200),
        heard: heard(),
        remark: work.body.value?.remark,
      }
    )
  }
  async function tried(deed: () => Promise<unknown>) {
    trouble.value = ''
    try {
      await deed()
    } catch (e) {
      trouble.value = e instanceof Error ? e.message : String(e)
    }
  }
  return {
    trouble,
    /** It can stand in for the band where its beats and its chart are known. */
    canPlay: computed(() => !!work.body.value?.chart && work.hearing.value!.anchors.length > 1),
    /** The recording is the band of its chart, and Practice hears what is played over it. What was said last is kept first. */
    along: () =>
      tried(async () => {
        await work.record.settled()
        land({ chart: work.body.value!.chart, mode: 'land', record: id.value })
      }),
    keeping,
    kept,
    line: () =>
      tried(async () => {
        const of = body()
        if (!of) return
        const made = await lines.create.mutateAsync(of)
        await router.push({ name: 'line', params: { id: made.id } })
      }),
    lick: () =>
      tried(async () => {
        const of = body()
        const [first, last] = [of?.notes[0]?.id, of?.notes.at(-1)?.id]
        if (!of || !first || !last) return
        kept.value = {
          ...(await askLine.keep(of, first, last, false)),
          title: '',
          source: where().slice(0, 200),
          heard: heard(),
        }
        keeping.value = true
      }),
    chart: (key: string | undefined) =>
      tried(async () => {
        const b = work.body.value!
        const tempo = Math.round(work.heard.value?.line?.tempo ?? 96)
        const made = await answer(
          api.POST('/api/charts', {
            body: { title: b.title, key: b.key || key || 'C', feel: b.hearing.feel || 'shuffle', tempo: Math.min(300, Math.max(30, tempo)), beats: b.hearing.beats, text: b.hearing.chords }, // prettier-ignore
          }),
        )
        work.record.change('its chart', { chart: made.id, hearing: { ...b.hearing, first: 0 } })
        await router.push({ name: 'edit', params: { id: made.id } })
      }),
  }
}
