/* The page at the laptop: it tells where it stands, and does what devices ask for. */
import { onScopeDispose, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useBand } from '../band/useBand'
import type { CommandId } from '../shell/commands'
import { pedalDeeds } from '../shell/pedals'
import { perform } from '../shell/useCommands'
import type { Lead } from './lead'
import { shown } from './shown'
import { newsBetween } from './useNewsBetween'
import { openSocket, Wire, type DeedId } from './wire'

/** So often it is told anew where the band stands while it plays, in milliseconds: a busy machine hands on sound late. */
const again = 300

/** The commands of a deed are those of a pedal's. */
export const commandsOf = (deed: DeedId): readonly CommandId[] =>
  deed === 'play' ? ['play'] : (pedalDeeds.find((d) => d.id === deed)?.commands ?? [])

export function useLead(on: () => boolean) {
  const band = useBand()
  const route = useRoute()
  let wire: Wire | undefined
  function state(w: Wire): Lead {
    const a = band.audition
    return {
      path: route.fullPath,
      playing: band.playing,
      title: a?.title ?? band.offered?.title ?? band.chart?.title ?? '',
      chart: band.chart?.id,
      tempo: band.tempo,
      loop: band.loop,
      audition: a && { title: a.title, beats: a.beats, bars: a.bars, lengths: a.lengths },
      stretches: band.playing ? band.stretches().map((s) => ({ ...s, at: w.there(s.at) })) : [],
      shown: shown(),
      trouble: band.trouble || undefined,
    }
  }
  const tell = () => wire?.known && wire.say({ lead: state(wire) })
  const channel = new BroadcastChannel('undaris-kept')
  const brought = newsBetween(channel, () => wire)
  watch(
    on,
    (now) => {
      wire?.close()
      wire = now
        ? new Wire(
            {
              there: (is) => is && tell(),
              do: (deed) => void perform(commandsOf(deed)),
              news: brought,
            },
            openSocket,
          )
        : undefined
    },
    { immediate: true },
  )
  watch(
    () => [
      route.fullPath,
      band.playing,
      band.tempo,
      band.loop,
      band.anchored,
      band.chart?.id,
      band.audition?.title,
      band.offered?.title,
      band.trouble,
      shown()?.spoken,
    ],
    tell,
    { flush: 'post' },
  )
  const timer = setInterval(() => band.playing && tell(), again)
  const awake = () => document.visibilityState === 'visible' && tell()
  document.addEventListener('visibilitychange', awake)
  onScopeDispose(() => {
    clearInterval(timer)
    document.removeEventListener('visibilitychange', awake)
    channel.close()
    wire?.close()
  })
}
