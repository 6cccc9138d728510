/* A device that follows: it shows what the page at the laptop shows, in time with it, until it is led elsewhere by hand. */
import { onScopeDispose, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useBand } from '../band/useBand'
import { useSetting } from '../memory/settings'
import { tell } from '../shell/told'
import { asked } from './asked'
import { following } from './following'
import { Following, placeOf, where, type Lead, type View } from './lead'
import { newsBetween } from './useNewsBetween'
import { openSocket, Wire, type DeedId } from './wire'

/** Which step of the browser's history this is: what is only put in place of another is no step. */
const step = () => (history.state as { position?: number } | null)?.position ?? 0

export function useFollowed() {
  const band = useBand()
  const route = useRoute()
  const router = useRouter()
  const lead = shallowRef<Lead | null>(null)
  const there = ref(false)
  /** It was put out: only a new pairing lets it in. */
  const out = ref(false)
  async function mayCome() {
    const answer = await fetch('/api/players').catch(() => undefined)
    out.value = answer?.status === 401
  }
  const view = useSetting<View>('followed', 'stand')
  const clock = new Following(() => wire.there(performance.now()))
  const channel = new BroadcastChannel('undaris-kept')
  const brought = newsBetween(channel, () => wire)
  const wire: Wire = new Wire(
    {
      lead: (told) => {
        if (told && wire.known) clock.tell(told.stretches)
        lead.value = told
        asked.value = told?.shown
      },
      there: (now) => {
        if (now && lead.value) clock.tell(lead.value.stretches)
        there.value = now
        void (now ? (out.value = false) : mayCome())
      },
      news: brought,
      error: tell,
    },
    openSocket,
  )

  /* Where the laptop goes, it goes. */
  function go() {
    const to = lead.value && following.value ? placeOf(lead.value, view.value) : undefined
    if (!to) return
    const next = router.resolve(to)
    const here = route.query
    const other =
      next.path !== route.path ||
      where.some((name) => next.query[name] && next.query[name] !== here[name]) ||
      (!lead.value!.playing && next.path.startsWith('/stand') && (next.query.bar ?? '1') !== (here.bar ?? '1'))
    if (other) void router.replace(to)
  }
  watch([lead, following, view, () => route.path], go)
  /* Where it is led by hand, it looks elsewhere. */
  let at = step()
  watch(
    () => route.path,
    () => {
      if (step() !== at) following.value = false
      at = step()
    },
    { flush: 'sync' },
  )

  /* The band elsewhere stands for one here. */
  function show() {
    const l = lead.value
    if (!following.value || !there.value || !l?.playing || !l.stretches.length || !clock.fresh)
      return band.show(undefined)
    if (l.tempo !== band.tempo) band.setTempo(l.tempo)
    band.setLoop(l.loop)
    band.show(clock)
    const title = l.audition?.title
    if (band.audition?.title === title) return
    band.audition = l.audition && {
      ...l.audition,
      cues: band.offered?.title === title ? band.offered!.cues : [],
      load: () => Promise.reject(new Error('It sounds at the laptop.')),
    }
  }
  watch([lead, following, there, () => band.chart?.id, () => band.offered?.title, () => band.playing], show, {
    flush: 'post',
  })
  const timer = setInterval(show, 1000)

  const woken = () => document.visibilityState === 'visible' && wire.wake()
  document.addEventListener('visibilitychange', woken)
  onScopeDispose(() => {
    clearInterval(timer)
    document.removeEventListener('visibilitychange', woken)
    channel.close()
    wire.close()
    band.show(undefined)
  })
  return { lead, there, out, view, ask: (deed: DeedId) => wire.say({ do: deed }) }
}
