/* What a form or a turnaround would put in the place of bars that stand there is shown beside them: the player decides. */
import { shallowRef, watch } from 'vue'
import type { Reading } from '../../api/client'
import type { Rewriting, useChart } from './useChart'

export function useSwap(draft: ReturnType<typeof useChart>) {
  const { reading } = draft
  const swapping = shallowRef<{ what: string; name: string; change: Rewriting; now: Reading['written'] }>()
  async function swap(what: string, name: string, change: Rewriting) {
    swapping.value = undefined
    if (!reading.value?.written.length) return draft.rewrite(what, change)
    const r = await draft.propose(change)
    if (r) swapping.value = { what, name, change, now: r.written }
    return !!r
  }
  async function putIn() {
    const s = swapping.value
    swapping.value = undefined
    if (s) await draft.rewrite(s.what, s.change)
  }
  watch(reading, () => (swapping.value = undefined))
  return { swapping, swap, putIn }
}
