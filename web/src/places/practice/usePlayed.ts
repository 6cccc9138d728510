/* Calls that are answered by playing: the notes that the ear hears, one by one. */
import { onScopeDispose, watch } from 'vue'
import { Listening } from '../../listen/listening'
import { useBand } from '../../band/useBand'
import { useEar } from '../../listen/useEar'

/** Milliseconds that a note which is not asked for is waited on, since its pitch may still be found otherwise. */
const doubt = 150

/** play is told each note's pitch, and tells whether it was asked for. */
export function usePlayed(wanted: () => boolean, play: (midi: number) => boolean) {
  const ear = useEar()
  const band = useBand()
  let listening: Listening | undefined
  /** The notes that have been answered with, by when they began. */
  let answered = new Map<number, boolean>()
  let pitches = new Map<number, number>()

  function hear(notes: { at: number; pitch: number }[]) {
    pitches = new Map(notes.map((n) => [n.at, n.pitch]))
    for (const { at, pitch } of notes.slice(-4)) {
      if (answered.has(at)) continue
      answered.set(at, true)
      if (play(pitch)) continue
      // Only what stays so is a slip; the first guess is not told.
      answered.delete(at)
      waits.add(
        setTimeout(() => {
          const now = pitches.get(at)
          if (now !== undefined && !answered.has(at)) answered.set(at, play(now))
        }, doubt),
      )
    }
  }
  const waits = new Set<ReturnType<typeof setTimeout>>()
  function stop() {
    for (const w of waits) clearTimeout(w)
    waits.clear()
    listening?.drop()
    listening = undefined
  }
  function begin() {
    stop()
    answered = new Map()
    listening = new Listening({}, { heard: hear, trouble: (says) => (ear.trouble = says) })
  }
  watch(
    () => ear.on && wanted(),
    (now) => (now ? begin() : stop()),
    { immediate: true },
  )
  /* Without a band there is no tick: seconds do as well. */
  const tick = (frame: number) => (frame / band.rate()) * 1600
  const deaf = ear.tell((n) => {
    listening?.notice(
      n.observations.map((o) => ({ ...o, tick: tick(o.frame) })),
      tick(n.frame),
    )
  })
  onScopeDispose(() => {
    deaf()
    stop()
  })
  return { anew: () => listening && begin() }
}
