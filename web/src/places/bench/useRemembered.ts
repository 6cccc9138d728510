/* Each player finds each chart in the region where it was left. */
import { useLocalStorage } from '@vueuse/core'
import { computed, watch, type Ref } from 'vue'
import { usePlayer } from '../../api/queries'
import type { useAddress } from '../../shell/useAddress'

const fields = ['own', 'on', 'way'] as const
type Place = Partial<Record<(typeof fields)[number], string>>

export function useRemembered(id: Ref<number>, { read, write }: ReturnType<typeof useAddress>) {
  const kept = useLocalStorage<Record<string, Place>>('undaris-regions', {})
  const player = usePlayer()
  const name = computed(() => (id.value && player.data.value ? `${player.data.value.id} ${id.value}` : ''))
  /* The chart that was opened last: what its address says is its own only from then on. */
  let opened = ''
  watch(
    [name, () => fields.map(read).join(' ')],
    ([now]) => {
      if (!now) return
      const there = kept.value[now]
      if (now !== opened) {
        opened = now
        if (there?.own && !read('own') && !read('frets')) {
          void write(there)
          return
        }
      }
      const { [now]: before, ...others } = kept.value
      void before
      const here = Object.fromEntries(fields.map((f) => [f, read(f) || undefined]))
      kept.value = read('own') ? { ...others, [now]: here } : others
    },
    { immediate: true },
  )
}
