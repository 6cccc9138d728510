/* The band plays what is practised over, without its chords where the way to practise asks for that, and begins by itself
   for who comes from a plan. What the player set for other places stays. */
import { nextTick, onBeforeUnmount, watch } from 'vue'
import { playing } from '../../api/kept'
import { useBand } from '../../band/useBand'
import { useEar } from '../../listen/useEar'
import type { Chosen } from './useChosen'
import { useRecordNamed } from './useRecordNamed'

export function usePlayedOver({ address, chart, mode, ground, lacks, own }: Chosen) {
  const band = useBand()
  const ear = useEar()
  watch(chart, (c) => c && band.take(c), { immediate: true })
  const record = useRecordNamed(address, chart)
  watch(
    own,
    (line) => {
      const bars = ground.data.value?.bars.length ?? 12
      const lengths = ground.data.value?.lengths
      const { beats, tempo } = line ?? { beats: 4, tempo: 100 }
      band.offer(line && { title: mode.value!.name, beats, bars, lengths, tempo, cues: [], load: playing(line) })
    },
    { immediate: true },
  )
  onBeforeUnmount(() => band.offer(undefined))
  watch(
    () => !!mode.value?.dropChords,
    (drop) => (band.dropped = drop),
    { immediate: true },
  )
  onBeforeUnmount(() => (band.dropped = false))
  const begin = watch(
    () => address.read('play') === 'yes' && !!ground.data.value && !lacks.value && !!band.chart && record.ready.value,
    (now) => {
      if (!now) return
      const tempo = Number(address.read('tempo'))
      void address.write({ play: undefined, tempo: undefined })
      void ear.wake()
      void nextTick(() => {
        if (tempo) band.setTempo(tempo)
        return band.offered ? band.hear(band.offered) : band.start(0, true)
      })
    },
    { immediate: true, flush: 'post' },
  )
  onBeforeUnmount(begin)
  return { band, trouble: record.trouble }
}
