/* The line that was written down, on our guitar, against the record. */
import { ref, watch } from 'vue'
import { answer, api } from '../../api/client'
import { useWriting } from '../../band/useWriting'
import type { Against } from '../../recording/player'
import type { RecordingSound } from './useRecordingSound'
import type { RecordingWork } from './useRecordingWork'

const ways: { id: Against; name: string; title: string }[] = [
  { id: 'record', name: 'the record alone', title: 'the record alone' },
  { id: 'both', name: 'with my line', title: 'your line on a guitar, with the record' },
  { id: 'sides', name: 'left and right', title: 'the record on the left, your line on the right' },
  { id: 'turns', name: 'in turn', title: 'a round of the record, a round of your line' },
  { id: 'line', name: 'my line alone', title: 'your line alone' },
]

export function useAgainst(work: RecordingWork, sound: RecordingSound) {
  const writing = useWriting()
  const trouble = ref('')
  let made = 0

  /** The guitar alone, at the line's own tempo, as sound. */
  async function render() {
    const mine = ++made
    const heard = work.heard.value
    const player = await sound.player()
    if (sound.modes.against === 'record' || !heard?.line || !heard.bars.length) return player.beside(undefined)
    trouble.value = ''
    const line = heard.line
    const load = () =>
      answer<ArrayBuffer>(
        api.POST('/api/lines/midi', {
          params: { query: { choruses: 1, countIn: 'false', tempo: line.tempo, metronome: false, swing: 0 } },
          body: line,
          parseAs: 'arrayBuffer' as const,
        }) as unknown as Promise<{ data?: ArrayBuffer; error?: unknown; response: Response }>,
      )
    const silent = Object.fromEntries(['drums', 'bass', 'chords', 'metronome'].map((p) => [p, 0]))
    const wav = await writing.write({ title: line.title, tempo: line.tempo, load, levels: { ...silent, lead: 1, 'lead beside': 1 } }) // prettier-ignore
    if (mine !== made || !wav) return
    const buffer = await player.context.decodeAudioData(wav)
    const sides = Array.from({ length: buffer.numberOfChannels }, (_, c) => buffer.getChannelData(c).slice())
    const beats = heard.bars.length * line.beats
    const [from, to] = [heard.bars[0]!.at, heard.bars.at(-1)!.to]
    await player.beside({ sides, rate: buffer.sampleRate, seconds: (beats * 60) / line.tempo }, from, to - from)
    player.set(sound.modes.against)
  }
  watch(
    () => [sound.modes.against, work.heard.value?.line],
    ([way], [before]) => {
      if (way === 'record' && before === 'record') return
      render().catch((e: unknown) => (trouble.value = e instanceof Error ? e.message : String(e)))
    },
  )
  return { ways, trouble }
}
