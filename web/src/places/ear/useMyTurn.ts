/* My turn: in the gap behind a round the ear listens, and what was played is set beside the record. */
import { onScopeDispose, ref, shallowRef, watch } from 'vue'
import type { TurnByEar } from '../../api/client'
import { askRecording } from '../../api/recordings'
import { useSound } from '../../band/useSound'
import { useEar, type Observation } from '../../listen/useEar'
import { begunIn } from '../../recording/listening'
import type { ByEar } from './useByEar'
import type { RecordingSound } from './useRecordingSound'
import type { RecordingWork } from './useRecordingWork'

/** Milliseconds until the last stroke of a turn has come to rest and is told. */
const settles = 450
/** Seconds before the gap in which a first note may come early. */
const early = 0.15

export function useMyTurn(work: RecordingWork, sound: RecordingSound, byEar: ByEar) {
  const ear = useEar()
  const band = useSound()
  /** What was played in the last turn, beside the record. */
  const turn = shallowRef<TurnByEar>()
  const trouble = ref('')
  let noticed: Observation[] = []
  const deaf = ear.tell((n) => {
    if (sound.modes.turn && sound.playing.value) noticed.push(...n.observations)
  })
  onScopeDispose(deaf)

  watch(
    () => sound.modes.turn,
    (on) => {
      turn.value = undefined
      if (!on || ear.on) return
      ear.listenTo(...byEar.compass.value)
      void ear.open()
    },
  )

  /** The gap in hand: the frame of the ear's sound at which it began, and the stretch that it answers. */
  let gap: { frame: number; from: number; to: number; rate: number } | undefined
  async function begin(rate: number) {
    const s = work.stretch.value
    const player = await sound.player()
    const at = player.turn()
    const context = band.engine()?.context
    if (!s || at === undefined || !context || !ear.on) return
    const since = (at - s.from) / rate
    gap = { frame: (context.currentTime - since) * context.sampleRate, ...s, rate }
    noticed = noticed.filter((o) => o.frame >= gap!.frame - early * context.sampleRate)
  }
  function end() {
    const of = gap
    const context = band.engine()?.context
    gap = undefined
    if (!of || !context) return
    const delay = ear.delay
    setTimeout(() => {
      const timed = noticed.map((o) => ({
        ...o,
        at: of.from + ((o.frame - of.frame) / context.sampleRate - delay) * of.rate,
      }))
      const mine = begunIn(timed, of.from - early, of.to)
      const record = work.notes.value.filter((n) => n.at >= of.from - 0.06 && n.at < of.to).slice(0, 500)
      trouble.value = ''
      askRecording.turn(mine, record).then(
        (t) => (turn.value = t),
        (e: unknown) => (trouble.value = e instanceof Error ? e.message : String(e)),
      )
    }, settles)
  }
  watch(sound.round, (now, before) => {
    if (before.gap) end()
    if (now.gap) void begin(now.rate)
  })
  watch(sound.playing, (on) => !on && end())
  watch(
    () => `${work.stretch.value?.from} ${work.stretch.value?.to}`,
    () => (turn.value = undefined),
  )
  return { turn, trouble, ear }
}
