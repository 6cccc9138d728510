/* The band: one for the whole application, so that it plays on from place to place. */
import { defineStore, storeToRefs } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { answer, api, type Chart, type ChartRow } from '../api/client'
import { metreOf } from '../music/metre'
import type { Audition, Playing } from './audition'
import type { SoundEvent } from './transport'
import { Awake } from './awake'
import { turnOf, type Companion } from './companion'
import {
  chorusesOf,
  cueAt,
  halved,
  lastChorus,
  loopName,
  loopTicks,
  moved,
  nextLoop,
  paceOf,
  placeOf,
} from './deciding'
import { quarter } from '../api/facts'
import { beatsOf, cleanInRow, type LoopBeats } from './settings'
import { maxTempo, minTempo } from '../api/facts'
import { useBandSettings } from './useBandSettings'
import { useHeard, type Clock } from './useHeard'
import { useSound } from './useSound'

/** What the band has to know of a chart. */
type Tune = Chart | ChartRow
export const useBand = defineStore('band', () => {
  const settings = useBandSettings().kept
  const sound = useSound()
  const heard = useHeard()
  const { status, progress, trouble, recorded } = storeToRefs(sound)
  const chart = shallowRef<Tune>()
  const tempo = ref(100)
  const swing = ref(0)
  const seed = ref(1)
  /** The loop in hand, which of two it is, and the other. */
  const loop = shallowRef<LoopBeats>()
  const side = ref<'A' | 'B'>('A')
  const aside = shallowRef<LoopBeats>()
  const withThread = shallowRef<{ low: number; high: number; strings?: string }>()
  const audition = shallowRef<Audition>()
  /** A recording of the chart, which sounds in the band's place wherever the chart itself plays. */
  const record = shallowRef<Companion>()
  /** The beat from which it was last begun. */
  let begun = 0
  /** What the place in view would have played instead of the chart. */
  const offered = shallowRef<Audition>()
  /** The bars that a loop is set in. */
  const metre = computed(() => {
    const o = offered.value
    if (o?.bars) return metreOf({ ...o, bars: o.bars })
    return chart.value && metreOf(chart.value)
  })
  /** Where the place in view stands: its chord, and the change that comes next. */
  const here = shallowRef<{ chord: LoopBeats; change: LoopBeats }>()
  const passes = ref(0)
  /** How often the band told where it stands. */
  const anchored = ref(0)
  /** A page elsewhere plays, and this one shows it: its clock stands in the place of the sound. */
  const led = shallowRef<Clock>()
  /** After how many choruses of what plays the band stops; 0 where it goes round. */
  const lastly = ref(0)
  /** The place in view has the chords dropped, whatever the player set. */
  const dropped = ref(false)
  const drops = computed(() => dropped.value || settings.dropChords)

  /** The tempo that swing follows, by tens; below it nothing changes. */
  const pace = computed(() => paceOf(tempo.value, swing.value || chart.value?.swing || 0))
  /** The tempo to come back to from half of it. */
  const full = ref(0)

  const choruses = computed(() => record.value?.choruses ?? chorusesOf(chart.value?.bars ?? 0))
  const formBeats = computed(() => metre.value?.length ?? 0)

  sound.listen({
    anchor(a) {
      anchored.value++
      if (a.pass !== passes.value) tempo.value = a.tempo // a rung of the ladder
      if (a.pass > passes.value) passed()
      passes.value = a.pass
      if (recorded.value)
        record.value?.follow(a, turnOf(a, begun * quarter, choruses.value * formBeats.value * quarter))
    },
    over: () => stop(),
    broken: () => stop(),
  })

  /** The file that plays, or one to take along. */
  async function score(a = audition.value, along?: { choruses: number }): Promise<ArrayBuffer> {
    const how: Playing = {
      comp: settings.comp,
      intensity: settings.intensity,
      arc: settings.arc,
      course: settings.course,
      bass: settings.bass,
      click: settings.marks,
      swing: swing.value || undefined,
      metronome: true,
      seed: seed.value,
      tempo: tempo.value,
      choruses: 1,
      intro: recorded.value && !along ? undefined : 'own',
      ...(along && { ...along, countIn: settings.countIn ? ('true' as const) : ('false' as const) }),
      ...((along || lastly.value) && { ending: 'own' }),
    }
    const parseAs = 'arrayBuffer' as const
    if (a) return a.load(how)
    const thread = withThread.value
    return answer<ArrayBuffer>(
      api.GET('/api/charts/{id}/files/{format}', {
        params: {
          path: { id: chart.value!.id, format: 'midi' },
          query: {
            ...how,
            choruses: along?.choruses ?? (lastly.value || choruses.value),
            dropChords: drops.value && !recorded.value,
            ...(thread ? { lead: 'thread' as const, ...thread } : {}),
          },
        },
        parseAs,
      }),
    )
  }

  /** Where the ladder goes by how it goes, a pass that was missed leads a step down, three that were not a step up. */
  let missed = false
  let clean = 0
  function passed() {
    const l = settings.ladder
    if (!l.on || !l.goes) return
    const step = l.goal < l.from ? -l.step : l.step
    clean = missed ? 0 : clean + 1
    if (missed) setTempo(tempo.value - step)
    else if (clean === cleanInRow)
      setTempo(step > 0 ? Math.min(l.goal, tempo.value + step) : Math.max(l.goal, tempo.value + step))
    if (clean === cleanInRow) clean = 0
    missed = false
  }

  const looped = () => loopTicks(audition.value, loop.value, formBeats.value, drops.value && !recorded.value)

  function ladder() {
    const l = settings.ladder
    sound.engine()?.tell({
      do: 'ladder',
      ladder:
        l.on && !l.goes ? { goal: l.goal, step: l.goal < l.from ? -l.step : l.step, passes: l.passes } : undefined,
    })
  }

  const whole = () => !audition.value || !!audition.value.bars

  /** From a beat of the form; who comes with the hand elsewhere is counted in whatever is set. */
  async function start(fromBeat: number, countedIn = settings.countIn) {
    if (!chart.value && !audition.value) return
    trouble.value = ''
    lastly.value = 0
    try {
      const e = sound.engine() ?? (await sound.open())
      await e.wake()
      const r = audition.value || settings.clickOnly ? undefined : record.value
      recorded.value = !!r
      if (r) {
        status.value = 'loading'
        await r.open(e.context, e.master, (part) => (progress.value = part))
      }
      await e.load(await score())
      if (settings.ladder.on && whole()) setTempo(settings.ladder.from)
      ladder()
      e.forget()
      begun = fromBeat
      e.tell({
        do: 'start',
        after: r ? 0.15 : 0,
        from: fromBeat * quarter,
        tempo: tempo.value,
        loop: looped(),
        countIn: countedIn && whole() ? settings.counted : 'none',
      })
      awake.begin(Date.now())
      status.value = 'playing'
      requestAnimationFrame(() => heard.follow(followed))
    } catch (e) {
      sound.failed(e)
    }
  }

  /* Where the machine slept while the band played, nobody played on: what was heard until then is kept. */
  const awake = new Awake()
  function slept() {
    if (led.value || status.value !== 'playing' || !awake.slept(Date.now())) return false
    stop()
    trouble.value =
      'This machine slept, so the band has stopped. What you played until then counts; press Play to go on.'
    return true
  }
  setInterval(slept, 1000)

  const followed = {
    engine: () => (status.value === 'playing' && !slept() ? (led.value ?? sound.engine()) : undefined),
    beat: () => 60 / tempo.value,
    placeOf: (tick: number) => placeOf(tick, audition.value ? 0 : formBeats.value),
  }

  function stop() {
    sound.engine()?.tell({ do: 'stop' })
    record.value?.rest()
    if (status.value === 'playing') status.value = 'ready'
    heard.rest()
    lastly.value = 0
    audition.value = undefined
  }

  /** A page elsewhere plays, or no longer does: what is shown here follows its clock, and nothing sounds. */
  function show(clock: Clock | undefined) {
    if (clock === led.value && (!clock || status.value === 'playing')) return
    if (clock && !led.value) stop()
    led.value = clock
    if (clock) {
      awake.begin(Date.now())
      status.value = 'playing'
      requestAnimationFrame(() => heard.follow(followed))
    } else stop()
  }

  /** This chorus is the last: the band plays its ending and stops. */
  async function end() {
    const at = sound.engine()?.position(0)
    if (status.value !== 'playing' || !at) return
    lastly.value = lastChorus(at.tick, audition.value ? 0 : formBeats.value, metre.value)
    await reload()
    sound.engine()?.tell({ do: 'last' })
  }

  function setTempo(wanted: number) {
    const t = Math.round(Math.min(maxTempo, Math.max(minTempo, wanted || chart.value?.tempo || 100)))
    tempo.value = t
    sound.engine()?.tell({ do: 'tempo', tempo: t })
  }

  /** Half as fast, and back. */
  function half() {
    const to = halved(tempo.value, full.value)
    full.value = to.back
    setTempo(to.tempo)
  }

  function setLoop(l: LoopBeats | undefined) {
    loop.value = l && beatsOf(l, formBeats.value)
    if (whole() && !lastly.value) sound.engine()?.tell({ do: 'loop', loop: looped() })
  }

  /** The other of two loops takes over: each is kept while the other goes round. */
  function turnLoops() {
    side.value = side.value === 'A' ? 'B' : 'A'
    const now = aside.value
    aside.value = loop.value
    setLoop(now)
  }
  function forgetLoops() {
    loop.value = aside.value = undefined
    side.value = 'A'
  }

  /** The whole form, then the chord in hand, then the change that comes next. */
  const turnLoop = () => setLoop(nextLoop(loop.value, here.value))

  /** Steps while playing: a loop moves there, else the band goes there when the bar is over. */
  function aim(toBeat: number) {
    if (loop.value) setLoop(moved(loop.value, toBeat, formBeats.value))
    else sound.engine()?.tell({ do: 'go', to: toBeat * quarter })
  }

  function take(c: Tune) {
    const other = c.id !== chart.value?.id
    // A recording lies over the bars of one chart, as they were.
    if (other || c.bars !== chart.value?.bars) withRecord(undefined)
    if (other) {
      stop()
      forgetLoops()
      withThread.value = undefined
      swing.value = 0
      tempo.value = c.tempo
      full.value = 0
    } else if (c.tempo !== chart.value?.tempo) setTempo(c.tempo)
    const changed = !other && c.updated !== chart.value?.updated
    chart.value = c
    if (changed) void reload()
  }

  /** A recording takes the band's place over its chart, at its own tempo; without one the band is back. */
  function withRecord(r: Companion | undefined) {
    if (r === record.value) return
    stop()
    record.value?.close()
    record.value = r
    recorded.value = false
    setTempo(r?.tempo ?? chart.value?.tempo ?? 100)
  }

  /** Plays on with what has been changed. */
  async function reload() {
    if (status.value === 'playing') await sound.engine()?.load(await score())
  }

  function hear(a: Audition, fromBeat = 0) {
    stop()
    audition.value = a
    return start(fromBeat)
  }

  /** What is auditioned has changed: it plays on with the change. */
  function rehear(load: Audition['load']) {
    if (!audition.value) return
    audition.value = { ...audition.value, load }
    void reload()
  }

  /** The place in view has something of its own to play; undefined when it is left. */
  function offer(a: Audition | undefined) {
    const other = a?.title !== offered.value?.title
    const heard = audition.value && audition.value.title === offered.value?.title
    if (other && (heard || a)) stop()
    offered.value = a
    if (other) {
      forgetLoops()
      setTempo(a?.tempo ?? chart.value?.tempo ?? 100)
    } else if (heard && a) rehear(a.load)
  }

  function hearThread(w: { low: number; high: number; strings?: string } | undefined) {
    withThread.value = w
    return status.value === 'playing' ? reload() : w ? start(loop.value?.from ?? 0) : undefined
  }

  watch(
    () => [
      settings.comp,
      settings.intensity,
      settings.arc,
      settings.course,
      settings.bass,
      settings.marks,
      drops.value,
      swing.value,
      seed.value,
      pace.value,
    ],
    () => {
      void reload()
      if (!audition.value && !lastly.value) sound.engine()?.tell({ do: 'loop', loop: looped() })
    },
  )
  watch(() => settings.ladder, ladder, { deep: true })

  return {
    settings: computed(() => settings),
    status,
    playing: computed(() => status.value === 'playing'),
    progress,
    trouble,
    chart,
    tempo,
    swing,
    seed,
    loop,
    here,
    audition,
    offered,
    dropped,
    metre,
    threadHeard: computed(() => !!withThread.value),
    ...storeToRefs(heard),
    passes,
    anchored,
    show,
    /** Where the band stands, for who follows it elsewhere: stretches of its ticks over milliseconds of this page. */
    stretches: () => (led.value ? [] : (sound.engine()?.stretches() ?? [])),
    formBeats,
    choruses,
    loopIs: computed(() => loopName(loop.value, here.value)),
    /** The cue of the audition that is heard now. */
    cue: computed(() => (audition.value ? cueAt(audition.value.cues, heard.beat) : -1)),
    settling: () => (status.value === 'playing' ? heard.settling(60 / tempo.value) : 0),
    hold: sound.hold,
    /** The sound is there, also before the band ever played. */
    async ready() {
      try {
        if (sound.engine()) return
        const e = await sound.open()
        await e.wake()
        await e.load(await score())
        status.value = 'ready'
      } catch (e) {
        sound.failed(e)
      }
    },
    /** Where the band stood, or will, at a time of the page in milliseconds. */
    where(at: number) {
      const position = sound.engine()?.position((at - performance.now()) / 1000)
      return position && { tick: position.tick, pass: passes.value }
    },
    /** The tick that sounded at a frame of the sound, and which pass of the loop it is. */
    at(frame: number) {
      const position = sound.engine()?.at(frame)
      return position && { tick: position.tick, pass: position.anchor.pass }
    },
    /** What the band plays from one tick up to another, without its drums: ticks and MIDI numbers. */
    notes: (from: number, to: number, lead = true) =>
      (recorded.value ? record.value?.notes(from, to) : sound.engine()?.between(from, to, lead)) ?? [],
    /** A recording that begins with the first bar is heard beside the band. */
    async beside(wav: ArrayBuffer) {
      while (status.value === 'playing' && !sound.engine()?.position(0)) await new Promise((r) => setTimeout(r, 20))
      return (await sound.engine()?.beside(wav)) ?? (() => {})
    },
    /** What would be played, to take along: its title, tempo and file, so many choruses of it with an ending. */
    along: (choruses: number) => ({
      title: offered.value?.title ?? chart.value?.title ?? 'band',
      tempo: tempo.value,
      load: () => score(offered.value, { choruses }),
    }),
    /** A simulated player joins the band. */
    join: (events: SoundEvent[]) => sound.engine()?.tell({ do: 'join', events }),
    /** The frame of the sound that is heard now. */
    soundFrame: () => sound.engine()?.frame() ?? 0,
    rate: () => sound.engine()?.context.sampleRate ?? 48000,
    start,
    stop,
    end,
    ending: computed(() => lastly.value > 0),
    /** Beats of an intro before the first bar. */
    intro: () => (sound.engine()?.intro ?? 0) / quarter,
    /** And of a pickup, the last of them. */
    pickup: () => (sound.engine()?.pickup ?? 0) / quarter,
    setTempo,
    half,
    halved: computed(() => full.value > 0),
    setLoop,
    turnLoop,
    side,
    aside,
    turnLoops,
    missed: () => (missed = true),
    aim,
    take,
    hear,
    offer,
    hearThread,
    record,
    withRecord,
  }
})
