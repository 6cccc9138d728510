/* Calls that are answered by playing: the notes that the ear hears, one by one. */
import { onScopeDispose, watch } from 'vue'
import { Listening } from '../../listen/listening'
import { useBand } from '../../band/useBand'
import { useEar } from '../../listen/useEar'
import { Answers } from './answers'

/** Ticks of a second, where there is no band to count them. */
const second = 1600

/** asked tells whether a pitch is what is asked for now; play is told each note's. */
export function usePlayed(
  wanted: () => boolean,
  asked: (midi: number) => boolean,
  play: (midi: number, ms: number) => unknown,
) {
  const ear = useEar()
  const band = useBand()
  let open: { listening: Listening; answers: Answers } | undefined

  function stop() {
    open?.answers.stop()
    open?.listening.drop()
    open = undefined
  }
  function begin() {
    stop()
    const answers = new Answers(asked, (midi, tick) => play(midi, (tick / second) * 1000))
    const listening = new Listening({}, { heard: (n) => answers.hear(n), trouble: (says) => (ear.trouble = says) })
    open = { listening, answers }
  }
  watch(
    () => ear.on && wanted(),
    (now) => (now ? begin() : stop()),
    { immediate: true },
  )
  const tick = (frame: number) => (frame / band.rate()) * second
  const deaf = ear.tell((n) => {
    open?.listening.notice(
      n.observations.map((o) => ({ ...o, tick: tick(o.frame) })),
      tick(n.frame),
    )
  })
  onScopeDispose(() => {
    deaf()
    stop()
  })
  return { anew: () => open && begin() }
}
