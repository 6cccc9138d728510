/* How long was played without a rest, over everything: after that long one is offered, once, when a chorus is over or the
   band is silent. */
import { defineStore } from 'pinia'
import { ref } from 'vue'

/** Seconds of playing after which a rest is offered, and of silence that are one. */
export const restAfter = 22 * 60
export const isRest = 120
/** Seconds that an answer counts as playing. */
const counts = 20

/** Playing as it adds up. */
export class Playing {
  private seconds = 0
  private idle = 0
  private answered = -Infinity
  private offered = false
  /** Something was answered without the band. */
  did(now: number) {
    this.answered = now
  }
  /** Some seconds are over; true where a rest is due and was not offered yet. */
  pass(seconds: number, playing: boolean, now: number): boolean {
    if (playing || now - this.answered < counts) {
      this.seconds += seconds
      this.idle = 0
    } else if ((this.idle += seconds) >= isRest) this.rested()
    return this.due
  }
  get due() {
    return this.seconds >= restAfter && !this.offered
  }
  get minutes() {
    return Math.floor(this.seconds / 60)
  }
  /** It was offered: that is enough until there was a rest. */
  offer() {
    this.offered = true
  }
  rested() {
    this.seconds = this.idle = 0
    this.offered = false
  }
}

export const useRest = defineStore('rest', () => {
  const playing = new Playing()
  const shown = ref<'rest' | 'hurts'>()
  const minutes = ref(0)
  const now = () => performance.now() / 1000
  return {
    shown,
    minutes,
    did: () => playing.did(now()),
    /** A second is over; quiet: the band is silent, or a chorus has just ended. */
    second(plays: boolean, quiet: boolean) {
      if (!playing.pass(1, plays, now()) || !quiet) return
      playing.offer()
      minutes.value = playing.minutes
      shown.value ??= 'rest'
    },
    hurts: () => void (shown.value = 'hurts'),
    close: () => void (shown.value = undefined),
  }
})
