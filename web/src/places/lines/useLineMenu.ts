/* What a line leaves as, and what else can be done with it. */
import type { MenuItem } from 'primevue/menuitem'
import { computed, type Ref } from 'vue'
import { useRouter } from 'vue-router'
import { useBand } from '../../band/useBand'
import { useWriting } from '../../band/useWriting'
import { lineFiles } from '../../making/leavings'
import { commands } from '../../shell/commands'
import { commandItem, useCommands } from '../../shell/useCommands'

export function useLineMenu(of: {
  id: Ref<number>
  /** what stands open beside the line */
  panel: Ref<string>
  /** without its ornaments */
  plain: Ref<boolean>
  midi: { on: Ref<boolean>; turn: () => unknown }
  take: { simulate: () => unknown }
  climbing: Ref<string>
  rungs: { turn: () => void }
  fingers: Ref<boolean>
  parts: { on: Ref<boolean>; can: Ref<boolean>; turn: () => void }
}) {
  const router = useRouter()
  const band = useBand()
  const writing = useWriting()
  const { id, panel, plain, midi, take, climbing, rungs, fingers, parts } = of
  const query = () => (plain.value ? { plain: 'yes' } : {})
  useCommands({
    onPaper: () => router.push({ name: 'line-paper', params: { id: id.value }, query: query() }),
    byMIDI: {
      do: () => void midi.turn(),
      name: () => (midi.on.value ? 'No longer listen to MIDI' : commands.byMIDI.name),
    },
    listed: () => (panel.value = panel.value === 'notes' ? '' : 'notes'),
    simulate: () => void take.simulate(),
    climb: { do: rungs.turn, name: () => climbing.value },
    parts: {
      do: parts.turn,
      can: () => parts.can.value,
      name: () => (parts.on.value ? 'No longer in parts' : commands.parts.name),
    },
    fingers: {
      do: () => (fingers.value = !fingers.value),
      name: () => (fingers.value ? 'No fingers beside the notes' : commands.fingers.name),
    },
  })
  return computed((): MenuItem[] => [
    ...lineFiles(id.value, plain.value),
    { label: 'WAV, with the band', command: () => void writing.save(band.along(1)) },
    commandItem('onPaper', { icon: 'pi pi-print' }),
    ...(['listed', 'byMIDI', 'simulate', 'parts', 'climb', 'fingers'] as const).map((c) => commandItem(c)),
  ])
}
