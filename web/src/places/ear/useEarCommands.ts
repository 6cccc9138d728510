/* What keys, buttons and pedals do in By ear: hands hold a guitar. */
import { ref, watch, type Ref } from 'vue'
import { useAddress } from '../../shell/useAddress'
import { between, longer, moved, secondOf, snapped } from '../../recording/inHand'
import { throughHistory, useCommands } from '../../shell/useCommands'
import type { useAgainst } from './useAgainst'
import type { ByEar } from './useByEar'
import type { MeasuredState } from './useMeasured'
import type { RecordingSound } from './useRecordingSound'
import type { RecordingWork } from './useRecordingWork'

/** So long after the last tap the beats are taken from them. */
const afterTap = 1500

export function useEarCommands(
  work: RecordingWork,
  sound: RecordingSound,
  measured: MeasuredState,
  ear: ByEar,
  against: ReturnType<typeof useAgainst>,
  pane: Ref<string>,
) {
  // prettier-ignore
  const address = useAddress()
  const seconds = () => sound.sound.value?.seconds.value ?? 0
  const anchors = () => work.hearing.value?.anchors ?? []
  const put = (name: string, s: { from: number; to: number }, joins = false) => work.put(name, s, joins)

  /** A stretch that was dragged, its edges on beats where they are near. */
  function take(a: number, b: number) {
    const s = between(a, b, seconds())
    const one = anchors().length > 1 ? secondOf(anchors(), 1)! - secondOf(anchors(), 0)! : 0
    const [from, to] = [snapped(anchors(), s.from, one * 0.5), snapped(anchors(), s.to, one * 0.5)]
    put('the stretch in hand', between(from, to, seconds()))
  }
  const go = (by: 1 | -1) => work.stretch.value && put('the stretch in hand', moved(anchors(), work.stretch.value, by, seconds()), true) // prettier-ignore
  const grow = (by: 1 | -1) => work.stretch.value && put('the stretch in hand', longer(anchors(), work.stretch.value, by, seconds()), true) // prettier-ignore
  const barOne = () => secondOf(anchors(), 0)
  /** Plays from a marker on; without a stretch in hand at it, on from there. */
  const toMarker = (i: number) => {
    const m = work.hearing.value?.markers[i]
    if (m) sound.seek(m.at)
  }
  function mark() {
    const h = work.hearing.value
    if (!h || h.markers.length >= 200) return
    const markers = [...h.markers, { at: sound.at.value, title: `here ${h.markers.length + 1}` }]
    work.put('a marker', { markers: markers.toSorted((a, b) => a.at - b.at) })
  }
  /* Beats are tapped to what is heard; slowed, a tap still means that moment of the recording. */
  const taps = ref(0)
  let list: number[] = []
  let done: ReturnType<typeof setTimeout> | undefined
  function tap() {
    if (!sound.playing.value) return void sound.play()
    if (list.length && sound.at.value < list.at(-1)!) list = [] // the loop came round
    list.push(sound.at.value)
    taps.value = list.length
    clearTimeout(done)
    done = setTimeout(() => {
      const now = list
      list = []
      taps.value = 0
      if (now.length > 2) void measured.correct({ taps: now })
    }, afterTap)
  }
  /** The note in hand on the guitar, with the record: from a little before it. */
  function beside() {
    sound.modes.against = 'both'
    const n = ear.note.value
    if (n) void sound.play(Math.max(0, n.at - 0.6))
  }
  /* Who comes from a lick or a line hears where it was heard, at once. */
  watch(
    () => sound.sound.value?.whole.value && !!work.body.value,
    (whole) => {
      const [from, to] = [Number(address.read('from')), Number(address.read('to'))]
      if (!whole || !(to > from)) return
      const s = work.stretch.value
      if (!s || Math.abs(s.from - from) > 0.02 || Math.abs(s.to - to) > 0.02)
        put('the stretch in hand', between(from, to, seconds()))
      void address.write({ from: undefined, to: undefined })
      void sound.play(from)
    },
    { immediate: true },
  )
  const ways = against.ways.map((w) => w.id)
  const held = () => !!ear.note.value
  useCommands({
    ...throughHistory(work.record),
    play: { do: () => sound.toggle(), name: () => (sound.playing.value ? 'stop' : 'play') },
    slower: { do: () => sound.change({ rate: sound.how.rate - 0.05 }) },
    faster: { do: () => sound.change({ rate: sound.how.rate + 0.05 }) },
    half: { do: () => sound.change({ rate: sound.how.rate === 0.5 ? 1 : 0.5 }) },
    loop: { do: () => (sound.modes.loop = !sound.modes.loop) },
    stretchLater: { do: () => go(1), can: () => !!work.stretch.value },
    stretchEarlier: { do: () => go(-1), can: () => !!work.stretch.value },
    stretchLonger: { do: () => grow(1), can: () => !!work.stretch.value },
    stretchShorter: { do: () => grow(-1), can: () => !!work.stretch.value },
    listen: { do: () => ((pane.value = 'notes'), void ear.hear()), can: () => !!work.stretch.value },
    noteAfter: { do: () => ear.choose(1), can: () => work.notes.value.length > 0 },
    noteBefore: { do: () => ear.choose(-1), can: () => work.notes.value.length > 0 },
    settle: { do: () => ear.settle(), can: held },
    settleAll: { do: () => ear.settleAll(), can: () => ear.sure.value > 0 },
    noteUp: { do: () => ear.step(1), can: held },
    noteDown: { do: () => ear.step(-1), can: held },
    noNote: { do: () => ear.remove(), can: held },
    alone: { do: () => void ear.alone(), can: held },
    tap: { do: tap },
    mark: { do: mark },
    myTurn: { do: () => (sound.modes.turn = !sound.modes.turn) },
    slowerEach: { do: () => (sound.modes.slower = !sound.modes.slower) },
    against: { do: () => (sound.modes.against = ways[(ways.indexOf(sound.modes.against) + 1) % ways.length]!), can: () => !!work.heard.value?.line }, // prettier-ignore
  })
  return { take, toMarker, taps, beside, barOne, mark }
}
