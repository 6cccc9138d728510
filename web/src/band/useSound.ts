/* The sound: opened on the first play, at the levels that the player set; silent, loading, ready or playing. */
import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import type { Engine } from './engine'
import type { Anchor } from './messages'
import { levelsOf } from './levels'
import { useBandSettings } from './useBandSettings'

export type Status = 'silent' | 'loading' | 'ready' | 'playing'

export const useSound = defineStore('sound', () => {
  const { kept } = useBandSettings()
  const status = ref<Status>('silent')
  const progress = ref(0)
  const trouble = ref('')
  /** A recording sounds in the place of the band's players. */
  const recorded = ref(false)
  let engine: Engine | undefined
  let opening: Promise<Engine> | undefined
  let told: { anchor: (a: Anchor) => void; over: () => void; broken: () => void } = {
    anchor: () => {},
    over: () => {},
    broken: () => {},
  }

  /** Who is told where the band stands, and that the sound broke off. */
  const listen = (to: typeof told) => void (told = to)

  function open(): Promise<Engine> {
    status.value = 'loading'
    opening ??= import('./engine')
      .then(({ Engine }) => Engine.open((part) => (progress.value = part)))
      .then((e) => {
        engine = e
        e.onAnchor = (a) => told.anchor(a)
        e.onOver = () => told.over()
        e.onBroken = () => {
          trouble.value = 'The sound broke off. Press play to start it again.'
          told.broken()
          opening = engine = undefined
        }
        level()
        return e
      })
    return opening
  }
  /** What went wrong, said; the next play opens the sound anew where there is none. */
  function failed(e: unknown) {
    if (!engine) opening = undefined
    status.value = engine ? 'ready' : 'silent'
    trouble.value = e instanceof Error ? e.message : String(e)
  }

  /** What each player is heard at, with mutes and the metronome. */
  function level() {
    if (!engine) return
    for (const [player, level] of Object.entries(levelsOf(kept, recorded.value)))
      engine.tell({ do: 'level', player, level })
    engine.setVolume(kept.volume)
  }
  watch(() => [kept.levels, kept.muted, kept.volume, kept.click, kept.clickOnly, recorded.value], level, { deep: true })

  /** Sounds a note while it is held, once the sound is there. */
  function hold(midi: number) {
    if (!engine) return () => {}
    engine.tell({ do: 'tone', midi, velocity: 96 })
    return () => engine?.tell({ do: 'hush', midi })
  }

  return { status, progress, trouble, recorded, engine: () => engine, listen, open, failed, hold }
})
