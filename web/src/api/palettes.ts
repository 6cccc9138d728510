/* The palettes to choose from: the usual ones, and the player's own, which spell themselves ("own:1 b3 4 5 6"). */
import { computed } from 'vue'
import { useCatalogue, usePlayer, useSavePlayer } from './queries'

const own = 'own:'

export function usePalettes() {
  const catalogue = useCatalogue()
  const player = usePlayer()
  const save = useSavePlayer()
  const mine = computed(() => player.data.value?.palettes ?? [])
  const all = computed(() => [
    ...(catalogue.data.value?.palettes.map(({ id, name }) => ({ id, name })) ?? []),
    ...mine.value,
  ])
  const steps = computed(() => catalogue.data.value?.steps ?? [])
  /** What a palette is made of; nothing where that depends on the chord. */
  const stepsOf = (id: string) =>
    id.startsWith(own)
      ? id.slice(own.length).split(' ')
      : (catalogue.data.value?.palettes.find((p) => p.id === id)?.steps ?? [])
  /** A choice that is in no list is told by its steps. */
  const nameOf = (id: string) => all.value.find((p) => p.id === id)?.name ?? stepsOf(id).join(' ')
  const change = (palettes: { id: string; name: string }[]) => {
    const was = player.data.value
    if (was) return save.mutateAsync({ was, body: { ...was, palettes } })
  }
  /** Keeps one; of the same steps there is one only. */
  async function keep(name: string, chosen: string[]) {
    const id = own + steps.value.filter((s) => chosen.includes(s)).join(' ')
    await change([...mine.value.filter((p) => p.id !== id), { id, name }])
    return id
  }
  const drop = (id: string) => change(mine.value.filter((p) => p.id !== id))
  return { all, mine, steps, stepsOf, nameOf, keep, drop }
}
