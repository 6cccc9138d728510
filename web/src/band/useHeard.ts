/* Where the band stands, as it is heard: told frame by frame, a little ahead of what is slow to draw. */
import { quarter } from '../api/facts'
import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import { Ahead } from './ahead'

/** What tells where the band stands: the sound of this page, or a clock that follows one elsewhere. */
export interface Clock {
  /** The tick that is heard some seconds from now. */
  position: (ahead: number) => { tick: number } | undefined
}

/** What is followed: the sound while it plays, the length of a beat in seconds, and where a tick lies. */
export interface Followed {
  engine: () => Clock | undefined
  beat: () => number
  placeOf: (tick: number) => { beat: number; chorus: number }
}

export const useHeard = defineStore('heard', () => {
  /** The beat that is heard, counted from the top of the form; negative in the count-in. */
  const beat = ref<number>()
  /** The same to the tick. */
  const ticks = ref<number>()
  const chorus = ref(0)
  /** The beat and chorus about to be heard. */
  const soon = shallowRef<{ beat: number; chorus: number }>()
  const ahead = new Ahead()

  /** Shows the beat that is heard. Half a frame ahead, since what is drawn now is seen a frame later; a place with much
   * to draw is told earlier. */
  function follow(f: Followed) {
    const engine = f.engine()
    if (!engine) return ahead.rest()
    ahead.frame(performance.now() / 1000)
    const next = engine.position(ahead.seconds(f.beat()))
    if (next) {
      const p = f.placeOf(next.tick)
      if (p.beat !== soon.value?.beat || p.chorus !== soon.value.chorus) {
        soon.value = p
        ahead.told()
      }
    }
    const at = engine.position(0.008)
    if (at) {
      const p = f.placeOf(at.tick)
      ticks.value = p.beat * quarter + (((at.tick % quarter) + quarter) % quarter)
      beat.value = p.beat
      chorus.value = p.chorus
    }
    requestAnimationFrame(() => follow(f))
  }
  function rest() {
    beat.value = ticks.value = soon.value = undefined
  }
  /** Milliseconds from being told of a beat until it has been shown, and what can wait may be drawn. */
  const settling = (seconds: number) => 1000 * ahead.seconds(seconds) + 75

  return { beat, ticks, chorus, soon, follow, rest, settling }
})
