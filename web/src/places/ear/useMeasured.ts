/* What is measured of a recording, once it is whole: beats are found where none are known, its tuning is proposed, and its
   chords are guessed. */
import { computed, ref, shallowRef, watch } from 'vue'
import type { ChordsByEar, PulseGuess } from '../../api/client'
import { askRecording } from '../../api/recordings'
import { barsFrom, later, within } from '../../recording/inHand'
import type { Measured } from '../../recording/measure'
import type { RecordingSound } from './useRecordingSound'
import type { RecordingWork } from './useRecordingWork'

/** How much has to speak for a tuning, and by how many cents it is out, to be proposed. */
const clearly = 0.2
const noticeable = 6

export function useMeasured(work: RecordingWork, sound: RecordingSound) {
  const measured = shallowRef<Measured>()
  const pulses = shallowRef<PulseGuess[]>([])
  const chords = shallowRef<ChordsByEar>()
  const doing = ref('')
  const trouble = ref('')
  const known = computed(() => (work.hearing.value?.anchors.length ?? 0) > 1)

  async function doIt<T>(what: string, deed: () => Promise<T>): Promise<T | undefined> {
    doing.value = what
    trouble.value = ''
    try {
      return await deed()
    } catch (e) {
      trouble.value = e instanceof Error ? e.message : String(e)
      return undefined
    } finally {
      doing.value = ''
    }
  }
  const get = async () => (measured.value ??= await sound.sound.value?.measure())

  /** Looks for the beats, and takes the likeliest where none are known yet. */
  const find = () =>
    doIt('the beats are looked for', async () => {
      const m = await get()
      const h = work.hearing.value
      if (!m || !h) return
      const from = sound.sound.value!.from.value
      pulses.value = (await askRecording.pulse(m, h.beats)).map((p) => ({ ...p, anchors: later(p.anchors, from) }))
      if (!pulses.value.length) trouble.value = 'No beat was found in it: tap it while it plays (T).'
      else if (!known.value) take(pulses.value[0]!)
    })
  /** Old tapes are out of tune: where nobody has said by how much, what was measured stands. */
  function tune() {
    const m = measured.value
    if (m && m.inTune > clearly && Math.abs(m.cents) >= noticeable && !work.hearing.value?.cents)
      work.put('its tuning', { cents: m.cents }, true)
  }
  function take(p: PulseGuess) {
    const h = work.hearing.value
    if (!h) return
    const seconds = sound.sound.value?.seconds.value ?? 0
    const first =
      work.stretch.value ?? barsFrom(p.anchors, h.beats, Math.max(0, p.anchors.find((a) => a.beat >= 0)?.at ?? 0), 2)
    work.put('where the beats are', { anchors: p.anchors, ...(first && first.to <= seconds && first) })
  }
  const name = () =>
    doIt('the chords are listened to', async () => {
      const m = await get()
      if (!m || !known.value || !work.body.value) return
      const b = work.body.value
      const anchors = within(b.hearing.anchors, sound.sound.value?.from.value ?? 0)
      chords.value = await askRecording.chords(m, { ...b, hearing: { ...b.hearing, anchors } })
      work.guessed.value = { text: chords.value.text, key: chords.value.keys[0]?.key }
    })
  /** A tempo that is corrected: beats tapped, twice or half as many, bar 1 here, or a number. */
  async function correct(how: { taps?: number[]; first?: number; times?: number; tempo?: number }) {
    const h = work.hearing.value
    if (!h) return
    const until = sound.sound.value?.seconds.value
    const anchors = await doIt('', () => askRecording.tap({ anchors: h.anchors, beats: h.beats, until, ...how }))
    if (anchors) work.put('where the beats are', { anchors })
  }
  /* All of it is there: what nobody has found yet is looked for. */
  watch(
    () => sound.sound.value?.whole.value && !!work.body.value,
    async (whole) => {
      if (!whole) return
      measured.value = undefined
      pulses.value = []
      chords.value = work.guessed.value = undefined
      const seconds = sound.sound.value!.seconds.value
      if (Math.abs((work.body.value?.seconds ?? 0) - seconds) > 0.05)
        work.record.change('how long it lasts', { seconds }, true)
      if (!known.value) await find()
      else await get()
      tune()
      if (known.value) await name()
    },
    { immediate: true },
  )
  watch(
    () => [work.hearing.value?.anchors, work.hearing.value?.first, work.body.value?.chart, work.body.value?.key],
    () => chords.value && measured.value && void name(),
  )
  return { measured, pulses, chords, doing, trouble, known, find, take, name, correct }
}
export type MeasuredState = ReturnType<typeof useMeasured>
