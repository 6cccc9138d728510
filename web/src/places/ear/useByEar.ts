/* The notes of the stretch in hand: heard, chosen, corrected, settled; and the note that is in hand. */
import { computed, onScopeDispose, ref, watch } from 'vue'
import type { NoteByEar } from '../../api/client'
import { askRecording } from '../../api/recordings'
import { useSound } from '../../band/useSound'
import { Mixed } from '../../recording/mixed'
import { useSetting } from '../../memory/settings'
import { beatAt, secondOf } from '../../recording/inHand'
import { changed, corrected, heardAnew, neighbour, settleSure, sureFrom, without, written } from '../../recording/notes'
import type { RecordingSound } from './useRecordingSound'
import type { RecordingWork } from './useRecordingWork'

export function useByEar(work: RecordingWork, sound: RecordingSound) {
  const band = useSound()
  const chosen = ref<number>()
  /** A lone guitar is heard at once; ringing strings and bands by a model, which takes some seconds. */
  const what = useSetting('heardAs', 'mixed' as 'alone' | 'ringing' | 'mixed')
  const mixed = new Mixed()
  onScopeDispose(() => mixed.close())
  const hearing = ref(false)
  const trouble = ref('')
  const note = computed(() => work.notes.value.find((n) => n.id === chosen.value))
  const all = () => work.hearing.value?.notes ?? []
  watch(work.stretch, () => (chosen.value = note.value?.id))

  /** From a half step beneath the lowest string to the last fret, bent as far as can be. */
  const compass = computed((): [number, number] => {
    const i = work.heard.value?.instrument
    return i ? [Math.min(...i.midi) - 1, Math.max(...i.midi) + i.last + 3] : [39, 89]
  })

  async function hear() {
    const s = work.stretch.value
    const from = sound.sound.value
    if (!s || !from || hearing.value) return
    hearing.value = true
    trouble.value = ''
    try {
      const noticed = await from.listen(s.from, s.to, compass.value)
      const settled = work.notes.value.filter((n) => n.settled)
      const { sides, rate } = await from.slice(s.from, s.to)
      const sounded = what.value !== 'alone' ? await mixed.hear(sides, rate, s.from) : undefined
      const heard = await askRecording.notes(noticed, work.hearing.value!, settled, sounded, what.value === 'mixed')
      const next = heardAnew(all(), s, heard)
      if (!heard.length) trouble.value = 'Nothing is heard here that rings by itself. Write the notes on the rows, or try one side, or another stretch.' // prettier-ignore
      work.putNotes('what is heard', next)
    } catch (e) {
      trouble.value = e instanceof Error ? e.message : String(e)
    }
    hearing.value = false
  }

  const change = (name: string, by: Partial<NoteByEar>) => chosen.value && work.putNotes(name, corrected(all(), chosen.value, by), true) // prettier-ignore
  function settle() {
    if (!note.value) return
    work.putNotes('a note settled', changed(all(), note.value.id, { settled: true }))
    choose(1)
  }
  function remove() {
    if (!note.value) return
    const next = neighbour(work.notes.value, note.value.id, 1)
    work.putNotes('no note here', without(all(), note.value.id))
    chosen.value = next
  }
  const choose = (by: 1 | -1) => (chosen.value = neighbour(work.notes.value, chosen.value, by) ?? chosen.value)
  const settleAll = () => work.stretch.value && work.putNotes('all that is sure', settleSure(all(), work.stretch.value))
  /** Half a step or more, a beat's part earlier or later; what is asked of the note in hand. */
  const step = (by: number) => note.value && change('another pitch', { pitch: Math.max(0, Math.min(127, note.value.pitch + by)), string: 0, fret: 0 }) // prettier-ignore
  const bend = (by: number) => note.value && change('a bend', { bend: by, ...(by ? { pitch: note.value.pitch + (note.value.bend ?? 0) - by } : {}) }) // prettier-ignore
  function shift(by: number) {
    const [n, h] = [note.value, work.hearing.value]
    if (!n || !h) return
    const beat = beatAt(h.anchors, n.at)
    change('another moment', { at: Math.max(0, beat === undefined ? n.at + by / 4 : secondOf(h.anchors, beat + by)!) })
  }
  /** A note that is dragged is where its player has it; on another pitch the hand finds its place anew. */
  function move(id: number, at: number, pitch: number) {
    const n = work.notes.value.find((n) => n.id === id)
    if (!n) return
    chosen.value = id
    const other = pitch === n.pitch ? {} : { string: 0, fret: 0 }
    work.putNotes('a note moved', corrected(all(), id, { at: Math.max(0, at), pitch, ...other }))
  }
  /** Writes a note where nothing was heard, as long as half a beat. */
  function write(at: number, pitch: number) {
    const h = work.hearing.value
    const beat = h && beatAt(h.anchors, at)
    const length = h && beat !== undefined ? secondOf(h.anchors, beat + 0.5)! - at : 0.3
    const next = written(all(), at, length, pitch)
    work.putNotes('a note written', next.notes)
    chosen.value = next.id
  }
  /** Sounds the note in hand alone. */
  async function alone(n = note.value) {
    if (!n) return
    if (!band.engine()) await band.open()
    const e = band.engine()
    await e?.wake()
    band.status = 'ready'
    const hush = band.hold(Math.round(n.pitch + (n.bend ?? 0)))
    setTimeout(hush, 900)
  }
  const settled = computed(() => work.notes.value.filter((n) => n.settled).length)
  const sure = computed(() => work.notes.value.filter((n) => !n.settled && n.sure >= sureFrom).length)
  return { compass, what, part: mixed.part, chosen, note, hearing, trouble, hear, change, settle, settleAll, remove, choose, step, bend, shift, move, write, alone, settled, sure } // prettier-ignore
}
export type ByEar = ReturnType<typeof useByEar>
