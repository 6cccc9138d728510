import { useIntersectionObserver } from '@vueuse/core'
import { computed, ref, watch, type Ref, type WatchSource } from 'vue'

/** So many fill a screen; then so many more come each time. */
const least = 30
const further = 100

/**
 * Of a long list so many entries are there; more come when its foot comes into view, and are asked for where
 * the list itself is not whole. Another search begins anew.
 */
export function useGrowing<T>(
  all: Ref<readonly T[]>,
  foot: Ref<HTMLElement | null | undefined>,
  anew: WatchSource | WatchSource[],
  more: () => void = () => {},
) {
  const most = ref(least)
  watch(anew, () => (most.value = least))
  useIntersectionObserver(
    foot,
    ([e]) => {
      if (!e?.isIntersecting) return
      most.value += further
      if (most.value > all.value.length) more()
    },
    { rootMargin: '800px' },
  )
  return computed(() => all.value.slice(0, most.value))
}
