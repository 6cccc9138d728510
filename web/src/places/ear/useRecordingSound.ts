/* How a recording sounds: loaded when it is opened, played as the player wants it, round after round. */
import { useRafFn } from '@vueuse/core'
import { computed, onScopeDispose, reactive, ref, shallowRef, watch, type Ref } from 'vue'
import { useBand } from '../../band/useBand'
import { useSetting } from '../../memory/settings'
import { secondOf, beatAt, type Stretch } from '../../recording/inHand'
import { Player, usual, type Against, type How, type Round } from '../../recording/player'
import { partAt, Sound } from '../../recording/sound'
import type { Hearing } from '../../api/client'

/** By how much a round is slower than the one before, and the slowest. */
export const slowerBy = 0.1
export const slowest = 0.25

export function useRecordingSound(url: Ref<string | undefined>, hearing: Ref<Hearing | undefined>) {
  const band = useBand()
  /** How loud it is stays from one visit to the next; how slow does not. */
  const kept = useSetting('recordings', { volume: usual.volume, countIn: false })
  const sound = shallowRef<Sound>()
  let player: Player | undefined
  const how = reactive<How>({ ...usual, volume: kept.value.volume })
  const playing = ref(false)
  const opening = ref(false)
  const trouble = ref('')
  /** The second that is heard, or from which it is played. */
  const at = ref(0)
  const modes = reactive({ loop: true, slower: false, turn: false, against: 'record' as Against })
  const round = ref<Round>({ n: 0, gap: false, rate: 1 })

  watch(
    url,
    (now) => {
      stop()
      player?.close()
      player = undefined
      sound.value?.close()
      sound.value = undefined
      at.value = 0
      if (!now) return
      sound.value = new Sound(now)
      const h = hearing.value
      sound.value.open(h && h.to > h.from ? partAt(h.from) : undefined)
    },
    { immediate: true },
  )
  onScopeDispose(() => {
    player?.close()
    sound.value?.close()
  })

  const stretch = computed<Stretch | undefined>(() => {
    const h = hearing.value
    return h && h.to > h.from ? { from: h.from, to: h.to } : undefined
  })
  const looped = computed(() => (modes.loop ? stretch.value : undefined))

  async function open(): Promise<Player> {
    const s = sound.value!
    if (!player) {
      player = await Player.open({ slice: (a, b) => s.slice(a, b), seconds: () => s.end, loud: () => s.loud.value }, { ...how }) // prettier-ignore
      player.next = (n) => ({ rate: rateOf(n), gap: modes.turn })
      player.onRound = (r) => {
        round.value = r
        if (modes.slower && !r.gap) how.rate = r.rate
      }
      player.onEnd = () => (playing.value = false)
    }
    return player
  }
  /* Each round is slower than the one before, until the player has it. */
  let first = 0
  const rateOf = (n: number) =>
    modes.slower ? Math.max(slowest, Math.round((how.rate - (n > first ? slowerBy : 0)) * 100) / 100) : how.rate

  /** Plays the loop, or from a second on; in a loop from its beginning unless a moment in it is meant. */
  async function play(from?: number) {
    if (!sound.value || opening.value) return
    band.stop()
    trouble.value = ''
    opening.value = true
    try {
      const p = await open()
      const loop = looped.value
      const begin = loop
        ? from !== undefined && from > loop.from && from < loop.to
          ? from
          : loop.from
        : (from ?? at.value)
      first = 0
      round.value = { n: 0, gap: false, rate: how.rate }
      const clicks = kept.value.countIn ? countIn(begin) : []
      await p.play(begin, loop && [loop.from, loop.to], clicks.length ? clicks.at(-1)! + clicks[0]! : 0)
      const start = p.context.currentTime + p.lead
      p.click(clicks.map((c) => start - c))
      playing.value = true
    } catch (e) {
      trouble.value = e instanceof Error ? e.message : String(e)
    }
    opening.value = false
  }
  /** Seconds before the sound at which a bar is counted, the last one first. */
  function countIn(from: number): number[] {
    const h = hearing.value
    const beat = h && beatAt(h.anchors, from)
    if (!h || beat === undefined) return []
    const one = (secondOf(h.anchors, beat + 1)! - from) / how.rate
    return Array.from({ length: h.beats }, (_, i) => (i + 1) * one)
  }
  function stop() {
    player?.stop()
    playing.value = false
  }
  const toggle = () => (playing.value ? stop() : void play())
  function change(now: Partial<How>) {
    if (now.rate !== undefined) {
      modes.slower = false
      now.rate = Math.max(slowest, Math.min(1, Math.round(now.rate * 100) / 100))
    }
    Object.assign(how, now)
    if (now.volume !== undefined) kept.value.volume = now.volume
    void player?.change({ ...how })
  }
  /* A loop that is taken or let go, and what follows it, count from the next press or at once. */
  watch([() => looped.value?.from, () => looped.value?.to], () => playing.value && void play(at.value))
  watch(
    () => modes.against,
    (against) => player?.set(against),
  )
  watch(
    () => modes.slower,
    (on) => on && (first = round.value.n),
  )

  useRafFn(() => {
    if (!playing.value || !player) return
    at.value = player.now() ?? player.turn() ?? at.value
  })
  /** Goes to a moment; what plays goes on from there. */
  function seek(to: number) {
    at.value = Math.max(0, Math.min(to, sound.value?.seconds.value ?? 0))
    if (playing.value) void play(at.value)
  }
  return {
    sound,
    how,
    modes,
    kept,
    playing,
    opening,
    trouble,
    at,
    round,
    stretch,
    play,
    stop,
    toggle,
    change,
    seek,
    set: (way: Against) => (modes.against = way),
    loop: (on: boolean) => (modes.loop = on),
    count: (on: boolean) => (kept.value.countIn = on),
    player: open,
  }
}
export type RecordingSound = ReturnType<typeof useRecordingSound>
