/* What a line leaves as, and what else can be done with it. */
import type { MenuItem } from 'primevue/menuitem'
import { computed, type Ref } from 'vue'
import { useRouter } from 'vue-router'
import { useBand } from '../../band/useBand'
import { useWriting } from '../../band/useWriting'
import { lineFiles } from './files'

export function useLineMenu(of: {
  id: Ref<number>
  /** without its ornaments */
  plain: Ref<boolean>
  midi: { on: Ref<boolean>; turn: () => unknown }
  take: { simulate: () => unknown }
  climbing: Ref<string>
  rungs: { turn: () => void }
  fingers: Ref<boolean>
}) {
  const router = useRouter()
  const band = useBand()
  const writing = useWriting()
  return computed((): MenuItem[] => [
    ...lineFiles(of.id.value, of.plain.value),
    { label: 'WAV, with the band', command: () => void writing.save(band.along(1)) },
    {
      label: 'On paper, also for horns',
      icon: 'pi pi-print',
      command: () =>
        void router.push({
          name: 'line-paper',
          params: { id: of.id.value },
          query: of.plain.value ? { plain: 'yes' } : {},
        }),
    },
    {
      label: of.midi.on.value ? 'No longer listen to MIDI' : 'Write and play by MIDI guitar or keyboard',
      command: () => void of.midi.turn(),
    },
    { label: 'Have a simulated player play it', command: () => void of.take.simulate() },
    { label: of.climbing.value, command: of.rungs.turn },
    {
      label: of.fingers.value ? 'No fingers beside the notes' : 'Fingers beside the notes',
      command: () => (of.fingers.value = !of.fingers.value),
    },
  ])
}
