/* The band: one for the whole application, so that it plays on from place to place. */
import { computed, reactive, ref, shallowRef, watch } from 'vue'
import { useLocalStorage } from '@vueuse/core'
import { answer, api, type Chart, type ChartRow } from '../api/client'
import type { Engine } from './engine'
import { Ahead } from './ahead'
import type { Audition, Playing } from './audition'
import { beatsOf, maxTempo, minTempo, type Ladder, type LoopBeats } from './settings'

export type Status = 'silent' | 'loading' | 'ready' | 'playing'

/** Kept from one visit to the next. */
const settings = useLocalStorage(
  'undaris-band',
  {
    countIn: true,
    click: false,
    clickOnly: false,
    dropChords: false,
    comp: 'guitar',
    intensity: 3,
    volume: 0.8,
    cautioned: false,
    levels: { drums: 1, bass: 1, chords: 1, lead: 1, metronome: 1 } as Record<string, number>,
    muted: [] as string[],
    ladder: { on: false, from: 60, goal: 120, step: 5, passes: 2 } as Ladder & { on: boolean; from: number },
  },
  { mergeDefaults: true },
)

const status = ref<Status>('silent')
const progress = ref(0)
const trouble = ref('')
/** What the band has to know of a chart. */
type Tune = Chart | ChartRow
const chart = shallowRef<Tune>()
const tempo = ref(100)
const swing = ref(0)
const seed = ref(1)
const loop = shallowRef<LoopBeats>()
const withThread = shallowRef<{ low: number; high: number }>()
const audition = shallowRef<Audition>()
/** What the place in view would have played instead of the chart. */
const offered = shallowRef<Audition>()
const frame = computed(() =>
  offered.value?.bars ? { bars: offered.value.bars, beats: offered.value.beats } : chart.value,
)
/** Where the place in view stands: its chord, and the change that comes next. */
const here = shallowRef<{ chord: LoopBeats; change: LoopBeats }>()
/** The beat that is heard, counted from the top of the form; negative in the count-in. */
const beat = ref<number>()
/** The same to the tick. */
const ticks = ref<number>()
const chorus = ref(0)
/** The beat and chorus about to be heard. */
const soon = shallowRef<{ beat: number; chorus: number }>()
const passes = ref(0)

const ahead = new Ahead()
let engine: Engine | undefined
let opening: Promise<Engine> | undefined

const choruses = computed(() => {
  const bars = chart.value?.bars || 12
  return Math.max(2, Math.min(4, Math.floor(128 / bars) & ~1))
})
const formBeats = computed(() => (frame.value ? frame.value.bars * frame.value.beats : 0))

function open(): Promise<Engine> {
  status.value = 'loading'
  opening ??= import('./engine')
    .then(({ Engine }) => Engine.open((part) => (progress.value = part)))
    .then((e) => {
      engine = e
      e.onAnchor = (a) => {
        if (a.pass !== passes.value) tempo.value = a.tempo // a rung of the ladder
        passes.value = a.pass
      }
      e.onBroken = () => {
        trouble.value = 'The sound broke off. Press play to start it again.'
        stop()
        opening = engine = undefined
      }
      level()
      return e
    })
  return opening
}

async function score(): Promise<ArrayBuffer> {
  const how: Playing = {
    comp: settings.value.comp,
    intensity: settings.value.intensity,
    swing: swing.value || undefined,
    metronome: true,
    seed: seed.value,
    tempo: tempo.value,
    choruses: 1,
  }
  const parseAs = 'arrayBuffer' as const
  if (audition.value) return audition.value.load(how)
  const thread = withThread.value
  return answer<ArrayBuffer>(
    api.GET('/api/charts/{id}/midi', {
      params: {
        path: { id: chart.value!.id },
        query: {
          ...how,
          choruses: choruses.value,
          dropChords: settings.value.dropChords,
          ...(thread ? { lead: 'thread' as const, ...thread } : {}),
        },
      },
      parseAs,
    }),
  )
}

const loopTicks = () => {
  const own = audition.value?.loop
  if (own) return { from: own.from * 960, to: own.to * 960 }
  const part = audition.value
  if ((part && !part.bars) || !loop.value) return undefined
  if (part) return { from: loop.value.from * 960, to: loop.value.to * 960 }
  return {
    from: loop.value.from * 960,
    to: loop.value.to * 960,
    other: settings.value.dropChords ? formBeats.value * 960 : undefined,
  }
}

function ladder() {
  const l = settings.value.ladder
  engine?.tell({
    do: 'ladder',
    ladder: l.on ? { goal: l.goal, step: l.goal < l.from ? -l.step : l.step, passes: l.passes } : undefined,
  })
}

/** What each player is heard at, with mutes and the metronome. */
function level() {
  if (!engine) return
  const s = settings.value
  for (const [player, value] of Object.entries(s.levels)) {
    const silent =
      player === 'metronome' ? !s.click && !s.clickOnly : s.muted.includes(player) || (s.clickOnly && player !== 'lead')
    engine.tell({ do: 'level', player, level: silent ? 0 : value })
    if (player === 'lead') engine.tell({ do: 'level', player: 'lead beside', level: silent ? 0 : value })
  }
  engine.setVolume(s.volume)
}

const whole = () => !audition.value || !!audition.value.bars

async function start(fromBeat: number) {
  if (!chart.value && !audition.value) return
  trouble.value = ''
  try {
    const e = engine ?? (await open())
    await e.wake()
    await e.load(await score())
    if (settings.value.ladder.on && whole()) setTempo(settings.value.ladder.from)
    ladder()
    e.forget()
    e.tell({
      do: 'start',
      from: fromBeat * 960,
      tempo: tempo.value,
      loop: loopTicks(),
      countIn: settings.value.countIn && whole(),
    })
    status.value = 'playing'
    requestAnimationFrame(follow)
  } catch (e) {
    if (!engine) opening = undefined
    status.value = engine ? 'ready' : 'silent'
    trouble.value = e instanceof Error ? e.message : String(e)
  }
}

/** Beat and chorus of a tick. */
function placeOf(tick: number) {
  const b = Math.floor(tick / 960)
  const form = audition.value ? 0 : formBeats.value
  return form && b >= 0 ? { beat: b % form, chorus: Math.floor(b / form) } : { beat: b, chorus: 0 }
}

/**
 * Shows the beat that is heard. Half a frame ahead, since what is drawn now is seen a frame later; a place with much
 * to draw is told earlier.
 */
function follow() {
  if (status.value !== 'playing' || !engine) return ahead.rest()
  ahead.frame(performance.now() / 1000)
  const next = engine.position(ahead.seconds(60 / tempo.value))
  if (next) {
    const p = placeOf(next.tick)
    if (p.beat !== soon.value?.beat || p.chorus !== soon.value.chorus) {
      soon.value = p
      ahead.told()
    }
  }
  const at = engine.position(0.008)
  if (at) {
    const p = placeOf(at.tick)
    ticks.value = p.beat * 960 + (((at.tick % 960) + 960) % 960)
    beat.value = p.beat
    chorus.value = p.chorus
  }
  requestAnimationFrame(follow)
}

function stop() {
  engine?.tell({ do: 'stop' })
  if (status.value === 'playing') status.value = 'ready'
  beat.value = ticks.value = soon.value = undefined
  audition.value = undefined
}

function setTempo(wanted: number) {
  const t = Math.round(Math.min(maxTempo, Math.max(minTempo, wanted || chart.value?.tempo || 100)))
  tempo.value = t
  engine?.tell({ do: 'tempo', tempo: t })
}

function setLoop(l: LoopBeats | undefined) {
  loop.value = l && beatsOf(l, formBeats.value)
  if (whole()) engine?.tell({ do: 'loop', loop: loopTicks() })
}

const same = (a?: LoopBeats, b?: LoopBeats) => a?.from === b?.from && a?.to === b?.to

/** The whole form, then the chord in hand, then the change that comes next. */
function turnLoop() {
  const h = here.value
  if (!loop.value || !h) setLoop(loop.value ? undefined : h?.chord)
  else setLoop(same(loop.value, h.chord) ? h.change : undefined)
}

/** Steps while playing: a loop moves there, else the band goes there when the bar is over. */
function aim(toBeat: number) {
  if (loop.value) {
    const length = loop.value.to - loop.value.from
    const from = Math.min(toBeat, formBeats.value - length)
    setLoop({ from, to: from + length })
  } else engine?.tell({ do: 'go', to: toBeat * 960 })
}

function take(c: Tune) {
  const other = c.id !== chart.value?.id
  if (other) {
    stop()
    loop.value = undefined
    withThread.value = undefined
    swing.value = 0
    tempo.value = c.tempo
  } else if (c.tempo !== chart.value?.tempo) setTempo(c.tempo)
  const changed = !other && c.updated !== chart.value?.updated
  chart.value = c
  if (changed) void reload()
}

/** Plays on with what has been changed. */
async function reload() {
  if (status.value === 'playing' && engine) await engine.load(await score())
}

function hear(a: Audition) {
  stop()
  audition.value = a
  return start(0)
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
    loop.value = undefined
    setTempo(a?.tempo ?? chart.value?.tempo ?? 100)
  } else if (heard && a) rehear(a.load)
}

function hearThread(w: { low: number; high: number } | undefined) {
  withThread.value = w
  return status.value === 'playing' ? reload() : w ? start(loop.value?.from ?? 0) : undefined
}

watch(
  () => [settings.value.comp, settings.value.intensity, settings.value.dropChords, swing.value, seed.value],
  () => {
    void reload()
    if (!audition.value) engine?.tell({ do: 'loop', loop: loopTicks() })
  },
)
watch(() => settings.value.ladder, ladder, { deep: true })
watch(
  () => [
    settings.value.levels,
    settings.value.muted,
    settings.value.volume,
    settings.value.click,
    settings.value.clickOnly,
  ],
  level,
  { deep: true },
)

/** Sounds a note while it is held, once the sound is there. */
function hold(midi: number) {
  if (!engine) return () => {}
  engine.tell({ do: 'tone', midi, velocity: 96 })
  return () => engine?.tell({ do: 'hush', midi })
}

const band = reactive({
  settings,
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
  frame,
  threadHeard: computed(() => !!withThread.value),
  beat,
  ticks,
  soon,
  chorus,
  passes,
  formBeats,
  loopIs: computed(() => {
    if (!loop.value) return 'form'
    if (same(loop.value, here.value?.chord)) return 'chord'
    return same(loop.value, here.value?.change) ? 'change' : 'bars'
  }),
  /** The cue of the audition that is heard now. */
  cue: computed(() => {
    const b = beat.value
    if (!audition.value || b === undefined) return -1
    return audition.value.cues.findIndex((c) => b >= c.beat && b < c.beat + c.length)
  }),
})

/** Milliseconds from being told of a beat until it has been shown, and what can wait may be drawn. */
const settling = () => (status.value === 'playing' ? 1000 * ahead.seconds(60 / tempo.value) + 75 : 0)

export const useBand = () =>
  Object.assign(band, { settling, start, stop, setTempo, setLoop, turnLoop, aim, take, hear, offer, hearThread, hold })
