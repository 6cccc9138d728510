/* A set played through: each chart so many times, its last chord, and the count-in of the next. */
import { computed, onBeforeUnmount, ref, watch, type Ref } from 'vue'
import { answer, api, type ChartRow } from '../../api/client'
import { metreOf } from '../../music/metre'
import { useBand } from '../../band/useBand'

export interface Piece {
  chart: ChartRow
  choruses: number
}

/** Its bars, chorus after chorus, and one for the last chord. */
export const playedBars = ({ chart, choruses }: Piece) => {
  const once = chart.lengths ?? Array<number>(chart.bars).fill(chart.beats)
  const lengths = [...Array<number[]>(choruses).fill(once).flat(), chart.beats]
  return { beats: chart.beats, bars: lengths.length, lengths }
}
export const titleOf = (p: Piece, i: number) => `${i + 1}. ${p.chart.title}`

export function useThrough(pieces: Ref<Piece[]>) {
  const band = useBand()
  /** The piece that plays; none where nothing does. */
  const at = ref<number>()
  const now = computed(() => (at.value === undefined ? undefined : pieces.value[at.value]))
  const mine = computed(() => !!now.value && band.playing && band.audition?.title === titleOf(now.value, at.value ?? 0))

  async function play(i: number) {
    const piece = pieces.value[i]
    if (!piece) return stop()
    at.value = i
    band.setTempo(piece.chart.tempo)
    await band.hear({
      title: titleOf(piece, i),
      ...playedBars(piece),
      cues: [],
      load: (how) =>
        answer(
          api.GET('/api/charts/{id}/files/{format}', {
            params: {
              path: { id: piece.chart.id, format: 'midi' },
              query: { ...how, choruses: piece.choruses, intro: 'own', ending: 'own' },
            },
            parseAs: 'arrayBuffer' as const,
          }),
        ),
    })
  }
  function stop() {
    if (mine.value) band.stop()
    at.value = undefined
  }
  /* The last beat of the last chord is over: on to the next. */
  watch(
    () => (mine.value ? band.beat : undefined),
    (beat) => {
      const piece = now.value
      if (piece && beat !== undefined && beat >= metreOf(playedBars(piece)).length - 1) void play((at.value ?? 0) + 1)
    },
  )
  watch(
    () => band.playing,
    (playing) => !playing && band.status !== 'loading' && !band.audition && (at.value = undefined),
  )
  onBeforeUnmount(stop)
  /** Where the form is heard: a beat of it, and which time. */
  const heard = computed(() => {
    const piece = now.value
    const b = band.beat
    if (!piece || !mine.value || b === undefined || b < 0) return undefined
    const form = metreOf(piece.chart).length
    return b >= form * piece.choruses ? undefined : { beat: b % form, time: Math.floor(b / form) + 1 }
  })
  return { at, now, mine, heard, play, stop }
}
