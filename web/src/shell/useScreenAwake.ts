/* While the band plays the screen stays on: a player's hands are elsewhere. A browser that cannot do that goes on as it is. */
import { onScopeDispose, watch } from 'vue'

export function useScreenAwake(playing: () => boolean) {
  let lock: WakeLockSentinel | undefined
  let wanted = false
  async function hold() {
    if (!wanted || lock || document.visibilityState !== 'visible') return
    try {
      const got = await navigator.wakeLock?.request('screen')
      if (!got) return
      if (!wanted || lock) return void got.release()
      lock = got
      // A page that was away has lost it.
      got.addEventListener('release', () => lock === got && (lock = undefined))
    } catch {
      // a battery that is nearly empty, or a page that was just left
    }
  }
  watch(
    playing,
    (now) => {
      wanted = now
      if (now) return void hold()
      void lock?.release()
      lock = undefined
    },
    { immediate: true },
  )
  const back = () => void hold()
  document.addEventListener('visibilitychange', back)
  onScopeDispose(() => {
    document.removeEventListener('visibilitychange', back)
    wanted = false
    void lock?.release()
  })
}
