/* What comes of a take of a line: signs on the sheet, a rung of its ladder, and what is kept. */
import { computed, shallowRef, watch, type Ref } from 'vue'
import type { LineBody } from '../../api/client'
import { useLog } from '../../api/log'
import { keepSound, useTakeChanges } from '../../api/takes'
import { useBand } from '../../band/useBand'
import type { Whole } from '../../listen/listening'
import { clean } from '../../listen/rungs'
import { useEar } from '../../listen/useEar'
import { useRungs } from '../../listen/useRungs'
import { useFiner } from './useFiner'
import type { LineState } from './useLine'
import type { Parts } from './useParts'
import { takenVerdicts, type Take } from './useTake'
import { steady, verdictsOf, type Verdict } from '../../listen/verdicts'

export function useTaken(
  id: Ref<number>,
  state: LineState,
  take: Take,
  playing: Ref<boolean>,
  sound: (pass: number) => Promise<ArrayBuffer | undefined>,
  parts: Pick<Parts, 'practised' | 'passed' | 'on'>,
) {
  const { line, study } = state
  /* After a take the sheet shows how it was played, while it is played one quiet sign for each change; else how the line
     is written. */
  const verdicts = computed<Map<number, Verdict>>((before) => {
    const { take: whole, live } = take
    const now = whole.value ? takenVerdicts(whole.value) : live.value ? onChanges(live.value) : verdictsOf(study.value)
    return steady(now, before)
  })
  const onChanges = (live: Map<number, Verdict>) =>
    new Map([...live].filter(([id]) => study.value?.report.landings.some((l) => l.note === id)))

  const finer = useFiner(id, state)
  const rungs = useRungs(
    computed(() => `line ${id.value}`),
    () => line.value?.title ?? '',
    () => ({ line: id.value }),
    () => Math.max(line.value?.tempo ?? 0, finer.next.value ? (finer.goal.value + 5) / 1.5 : 0), // an exercise goes on in finer notes above its goal
  )
  /* Every take that was heard is noted in the log, by microphone or MIDI. */
  const log = useLog()
  const band = useBand()
  const ear = useEar()
  const logged = shallowRef<Promise<number | undefined>>()
  watch(take.played, (last) => {
    const simulated = ear.on && ear.source === 'player'
    if (!line.value || !last?.heard.length || simulated) return
    const body = {
      of: id.value,
      title: line.value.title,
      line: parts.practised.value!,
      tempo: band.tempo,
      heard: last.heard,
      played: last.span,
    }
    logged.value = log.take(body).then((row) => row?.id)
  })
  watch(take.take, async (t) => {
    if (!t || t.partial) return // what was stopped moves no ladder
    const came = clean(t.verdicts.filter((v) => v.is === 'right').length, t.verdicts.length)
    if (parts.passed(came)) return
    rungs.passed(came)
    if ((rungs.rung.value?.tempo ?? 0) <= finer.goal.value) return
    const tempo = await finer.go()
    if (tempo) rungs.stand(tempo)
  })
  watch(playing, (now) => now && !parts.on.value && rungs.resume())

  /** What can be done about the ladder, in words. */
  const climbing = computed(() => {
    if (rungs.rung.value) return `No longer climb in tempo (now ${rungs.rung.value.tempo})`
    const above = finer.next.value && `; above ${finer.goal.value} in ${finer.next.value.pace.name}`
    return `Climb in tempo as takes come clean${above ?? ''}`
  })

  return { verdicts, rungs, climbing, keeping: useKeptTake(line, take.whole, sound, logged) }
}

function useKeptTake(
  line: Ref<LineBody | undefined>,
  whole: Ref<Whole | undefined>,
  sound: (pass: number) => Promise<ArrayBuffer | undefined>,
  logged: Ref<Promise<number | undefined> | undefined>,
) {
  const changes = useTakeChanges()
  const band = useBand()
  const log = useLog()
  /** The take that has been kept. */
  const of = shallowRef<Whole>()
  async function keep() {
    const w = whole.value
    if (!w?.take || !w.written || of.value === w) return
    of.value = w
    const { landings, good, try: next } = w.take
    const title = line.value!.title
    const wav = w.pass === undefined ? undefined : await sound(w.pass)
    const kept = await changes.create.mutateAsync({
      title,
      tempo: band.tempo,
      changes: landings.length,
      landed: landings.filter((l) => l.landed).length,
      good,
      try: next,
      line: { ...w.written, title: `${title}, as played` },
      heard: w.heard,
    })
    await keepSound(kept.id, wav)
    void logged.value?.then((row) => (row ? log.kept(row, kept.id) : undefined))
  }
  return { of, keep }
}
