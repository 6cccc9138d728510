/* Each player finds each chart in the region where it was left. */
import { computed, watch, type Ref } from 'vue'
import { here } from '../../memory/here'
import { useSetting } from '../../memory/settings'
import type { useAddress } from '../../shell/useAddress'

const fields = ['own', 'on', 'way'] as const
type Place = Partial<Record<(typeof fields)[number], string>>

export function useRemembered(id: Ref<number>, { read, write }: ReturnType<typeof useAddress>) {
  const kept = useSetting<Record<string, Place>>('regions', {})
  const name = computed(() => (id.value && here.player ? `${id.value}` : ''))
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
