/* Free playing over a chart's changes: each chorus is listened to, judged by what it asks for, and the last two are held. */
import { quarter } from '../../api/facts'
import { computed, onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue'
import {
  answer,
  api,
  type FreeLanding,
  type FreeTake,
  type HeardNote,
  type Holding,
  type LineBody,
  type PlayedSpan,
} from '../../api/client'
import { chorusAt, Counted, held, since, withOne, type Chorus } from './chorus'
import { useBand } from '../../band/useBand'
import { Listening, type Timed } from '../../listen/listening'
import { Played } from '../../listen/played'
import { Passes } from '../../listen/passes'
import { erring, Simulated } from '../../listen/simulated'
import { useEar } from '../../listen/useEar'
import type { Press } from '../../listen/useByHand'
import { useReel } from '../../listen/useReel'
import { useSounding } from '../../listen/useSounding'
import { useMidi } from '../../listen/useMidi'
import { useRest } from '../../shell/useRest'
import { useWay } from '../../ways/useWay'

export type { Chorus }

/** own names what the band plays in the place of the chart, where it does. */
export function useFree(
  over: Ref<LineBody | undefined>,
  mode: Ref<string>,
  own: Ref<string | undefined>,
  hold: Ref<Holding | undefined>,
  done?: (c: Chorus) => void,
) {
  const band = useBand()
  const ear = useEar()
  const reel = useReel()
  const hand = useRest()
  const way = useWay()
  const landings = ref(new Map<number, FreeLanding>())
  const choruses = shallowRef<Chorus[]>([])
  const trouble = ref('')
  /** Which pass of the mode is asked for: they go on from chorus to chorus. */
  const pass = ref(0)
  const playing = computed(() => band.playing && band.audition?.title === own.value)
  /* Choruses of a chart follow each other within a pass of the loop; what is played in its place is a pass by itself. */
  const form = computed(() => (!over.value ? 0 : own.value ? Infinity : band.formBeats * quarter))

  function add(free: FreeTake, heard: HeardNote[], of: number, simulated: boolean, span?: PlayedSpan) {
    choruses.value = withOne(choruses.value, { pass: of, free, heard, span, simulated, sound: reel.sound(of) })
    landings.value = new Map(free.landings.map((l) => [l.at, l]))
    done?.(choruses.value.at(-1)!)
  }
  /** What the band plays in a chorus, as a microphone would hear it. */
  function beside(n: number) {
    const chorus = counted.chorusOf(n)
    const from = chorus ? chorus * form.value : 0 // a form without an end has but one
    return since(from, band.notes(from, from + form.value))
  }
  const passes = new Passes(
    (n) => {
      landings.value = new Map()
      pass.value = n
      return (
        over.value &&
        new Listening(
          {
            line: over.value,
            mode: mode.value,
            pass: n,
            hold: hold.value,
            band: stoodIn ? [] : beside(n), // who is simulated sits beside no loudspeaker
            known: ear.known,
            tempo: band.tempo,
            swing: band.swing || undefined,
          },
          {
            landings: (list) => {
              const all = new Map(landings.value)
              for (const l of list) all.set(l.at, l)
              landings.value = all
              if (!stoodIn && list.some((l) => l.counts)) way.met('landed')
            },
            inTune: (strokes) => (ear.known = strokes),
            trouble: (says) => (trouble.value = says),
          },
        )
      )
    },
    ({ free, heard }, n, span) => {
      if (free && heard.length) add(free, heard, n, stoodIn, span)
    },
  )

  const place = (at: { tick: number; pass: number } | undefined) => chorusAt(at, form.value)
  /* By MIDI, by keys and on the neck what is played need not be heard. */
  const played = new Played()
  function told(list: (tick: number) => Timed[], at: number) {
    const now = playing.value ? place(band.where(at)) : undefined
    if (now) passes.noticed(list(now.tick).map((o) => ({ ...o, pass: count(now.pass) })), { tick: now.tick, pass: count(now.pass) }, 'MIDI') // prettier-ignore
  }
  const struck = ({ key, midi, at }: Press) => told((tick) => played.struck(key, midi, tick), at)
  const released = ({ key, at }: Press) => told((tick) => played.released(key, tick), at)
  const press = (n: { midi: number; channel: number; at: number }) => ({ ...n, key: `${n.channel} ${n.midi}` })
  const midi = useMidi({
    struck: (n) => struck(press(n)),
    released: (n) => released(press(n)),
    bent: ({ channel, by, at }) => told((tick) => played.bentAll(`${channel} `, by, tick), at),
  })
  const counted = new Counted()
  const count = (n: number) => counted.count(n)
  const deaf = ear.tell((n) => {
    if (!playing.value || playsAlong || !ear.kept.graded) return
    const behind = ear.delay * band.rate()
    const now = place(band.at(n.frame - behind))
    if (!now) return
    const list = n.observations.flatMap((o) => {
      const at = place(band.at(o.frame - behind))
      return at ? [{ ...o, tick: at.tick, pass: count(at.pass) }] : []
    })
    reel.at(count(now.pass), now.tick, n.frame)
    passes.noticed(list, { tick: now.tick, pass: count(now.pass) })
  })
  useSounding(
    playing,
    () => ask(),
    () => ({
      choruses: Number.isFinite(form.value) ? band.choruses : 1,
      ticks: form.value,
    }),
  )
  watch(playing, (now) => {
    rest()
    if (now) {
      stoodIn = ear.on && ear.source === 'player'
      counted.clear()
      reel.clear()
      passes.anew()
      landings.value = new Map()
    } else if (hand.shown === 'hurts')
      passes.drop() // what hurt is not judged
    else passes.close()
  })
  watch(
    () => band.beat,
    () => {
      const now = playing.value ? place(band.where(performance.now())) : undefined
      if (now) passes.at({ tick: now.tick, pass: count(now.pass) })
    },
  )
  watch([mode, () => over.value?.text, () => over.value?.key, () => JSON.stringify(over.value?.notes), hold], () => {
    passes.drop()
    choruses.value = []
    landings.value = new Map()
    pass.value = 0
  })
  onScopeDispose(() => {
    deaf()
    rest()
    passes.drop()
  })

  /** Whoever plays in this pass is simulated. */
  let stoodIn = false
  let playsAlong: ReturnType<typeof setInterval> | undefined
  function rest() {
    clearInterval(playsAlong)
    playsAlong = undefined
  }
  function ask(n = pass.value) {
    const how = {
      ...erring(choruses.value.length),
      mode: mode.value,
      pass: n,
      seed: Math.floor(Math.random() * 2 ** 31),
    }
    return answer(api.POST('/api/practice/simulate', { body: { over: over.value!, tempo: band.tempo, ...how } }))
  }
  /** A simulated player plays along with the band, a new solo in every chorus. */
  async function along() {
    let player = new Simulated(await ask())
    let of = -1
    stoodIn = true
    playsAlong = setInterval(() => {
      const now = place(band.at(band.soundFrame()))
      if (!now || !playing.value) return
      const pass = count(now.pass)
      if (pass !== of && of >= 0) void ask().then((heard) => (player = new Simulated(heard)))
      of = pass
      passes.noticed(
        player.due(now.tick).map((o) => ({ ...o, pass })),
        { tick: now.tick, pass },
        'simulated',
      )
    }, 30)
  }
  /** A simulated player plays: along with the band, or where it is silent the next pass at once. */
  async function simulate() {
    const line = over.value
    if (!line) return
    trouble.value = ''
    rest()
    const n = choruses.value.length
    try {
      if (playing.value) return await along()
      const heard = await ask(n)
      const body = { over: line, mode: mode.value, pass: n, hold: hold.value, heard, tempo: band.tempo }
      const judged = await answer(api.POST('/api/practice/judge', { body }))
      if (over.value !== line || mode.value !== body.mode) return // something else is asked for by now
      add(judged, heard, n, true)
      pass.value = n
    } catch (e) {
      trouble.value = e instanceof Error ? e.message : String(e)
    }
  }

  return {
    landings,
    choruses,
    last: computed(() => choruses.value.at(-1)),
    held: computed(() => choruses.value.slice(-held)),
    pass,
    playing,
    /** The tick of the chorus that is heard now. */
    tick: () => (playing.value ? place(band.at(band.soundFrame()))?.tick : undefined),
    trouble,
    midi,
    struck,
    released,
    simulate,
  }
}
