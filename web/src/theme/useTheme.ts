import { usePreferredDark } from '@vueuse/core'
import { computed, watchEffect } from 'vue'
import { useSetting } from '../memory/settings'

export type Theme = 'paper' | 'stage'

/** The look: what the player chose, or else what the system asks for. */
export function useTheme() {
  const chosen = useSetting<Theme | ''>('theme', '')
  const dark = usePreferredDark()
  const theme = computed<Theme>(() => chosen.value || (dark.value ? 'stage' : 'paper'))
  watchEffect(() => {
    document.documentElement.dataset.theme = theme.value
  })
  return { theme, turn: () => (chosen.value = theme.value === 'paper' ? 'stage' : 'paper') }
}
