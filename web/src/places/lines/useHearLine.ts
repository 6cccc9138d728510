/* The band plays the line that is in view, follows what is changed in it, and hears what is played along with it. */
import { quarter } from '../../api/facts'
import { computed, onBeforeUnmount, watch, type Ref } from 'vue'
import type { LineBody } from '../../api/client'
import { metreOf, type Bars } from '../../music/metre'
import { playing } from '../../api/kept'
import { useBand } from '../../band/useBand'
import { useEar } from '../../listen/useEar'
import { useReel } from '../../listen/useReel'
import { useSounding } from '../../listen/useSounding'
import { useAddress } from '../../shell/useAddress'
import { useGoOn } from '../../shell/useGoOn'
import { useRest } from '../../shell/useRest'
import { useTake } from './useTake'

/** line is what is asked for, of the line in view; from is the beat that it begins on, where it is a part. */
export function useHearLine(line: Ref<LineBody | undefined>, bars: Ref<Bars>, from: () => number | undefined) {
  const band = useBand()
  const address = useAddress()
  const level = computed(() => address.read('level'))
  watch([line, level], ([l]) => {
    if (!l) return
    band.offer({
      title: l.title,
      ...bars.value,
      tempo: l.tempo,
      cues: [],
      load: playing(l, { plain: level.value === 'plain', unbent: level.value === 'unbent' }),
    })
  })
  onBeforeUnmount(() => band.offer(undefined))
  /* Come here from a plan, the band begins by itself. */
  const begin = watch(
    () =>
      address.read('play') === 'yes' && !!line.value && bars.value.bars > 0 && band.offered?.title === line.value.title,
    (now) => {
      if (!now) return
      const tempo = Number(address.read('tempo'))
      void address.write({ play: undefined, tempo: undefined })
      if (tempo) band.setTempo(tempo)
      void ear.wake()
      void band.hear(band.offered!)
    },
    { flush: 'post' },
  )
  onBeforeUnmount(begin)
  const mine = computed(() => band.playing && band.audition?.title === line.value?.title)
  const ear = useEar()
  const rest = useRest()
  const metre = computed(() => metreOf(bars.value))
  const take = useTake(
    line,
    () => mine.value,
    (at) => band.where(at),
    () => band.tempo,
    () => ({ band: beside(), known: ear.known }),
    (strokes) => (ear.known = strokes),
    undefined,
    () => rest.shown === 'hurts',
  )
  watch(
    () => band.beat,
    () => {
      const now = mine.value ? band.where(performance.now()) : undefined
      if (now) take.at(now)
    },
  )
  /** What the band plays beside the line itself, as a microphone would hear it; who is simulated sits beside no loudspeaker. */
  const beside = () =>
    ear.source === 'player' ? [] : band.notes(-metre.value.beatsOf(0) * quarter, metre.value.length * quarter, false)
  useSounding(mine, take.simulated, () => ({ choruses: 1, ticks: 0 }))
  const reel = useReel()
  const goOn = useGoOn()
  watch(mine, (now) => {
    if (!now) return
    reel.clear()
    goOn.began({ title: line.value!.title, tempo: band.tempo })
  })
  onBeforeUnmount(
    ear.tell((n) => {
      if (!mine.value || !ear.kept.graded) return
      const behind = ear.delay * band.rate()
      const now = band.at(n.frame - behind)
      const list = n.observations.flatMap((o) => {
        const at = band.at(o.frame - behind)
        return at ? [{ ...o, ...at }] : []
      })
      if (!now || now.tick <= -quarter) return
      reel.at(now.pass, now.tick, n.frame)
      take.noticed(list, now)
    }),
  )
  /** Starts and stops it. */
  function hear() {
    if (mine.value) band.stop()
    else if (band.offered) void band.hear(band.offered, from() ?? 0)
  }
  return {
    mine,
    take,
    /** How a pass of the line sounded. */
    reel,
    hear,
    /** It is played to be heard and judged: the ear is on where it may be. */
    land() {
      void ear.wake()
      if (!mine.value) hear()
    },
    clock: () => (mine.value && band.ticks !== undefined && band.ticks >= 0 ? band.ticks : undefined),
    /** Sounds a note for a moment. */
    sound(midi: number) {
      const release = band.hold(midi)
      setTimeout(release, 350)
    },
  }
}
