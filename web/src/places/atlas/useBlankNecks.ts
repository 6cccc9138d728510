/* What a player has marked on blank necks is kept over a reload, for each chart and each way to divide the neck; so is how
   long it took, from the first mark to the check. */
import { computed, ref, watch, type Ref } from 'vue'
import { useSetting } from '../../memory/settings'

interface Sheet {
  marks: Record<string, string[]>
  /** when the first mark was set, in milliseconds */
  began?: number
  /** how long the last check took, in seconds */
  last?: number
}
const most = 60 // sheets that are remembered

export function useBlankNecks(name: Ref<string>, now = () => Date.now()) {
  const all = useSetting<Record<string, Sheet>>('blank', {})
  const sheet = computed<Sheet>(() => all.value[name.value] ?? { marks: {} })
  const write = (change: Partial<Sheet>) => {
    const { [name.value]: was = { marks: {} }, ...others } = all.value
    const kept = Object.entries(others).slice(-most + 1)
    all.value = Object.fromEntries([...kept, [name.value, { ...was, ...change }]])
  }
  const marksOf = (neck: string) => sheet.value.marks[neck] ?? []
  const mark = (neck: string, marks: string[]) =>
    write({ marks: { ...sheet.value.marks, [neck]: marks }, began: sheet.value.began ?? now() })

  const checked = ref(false)
  /** How long this one took, and the one before, in seconds. */
  const time = ref<{ took: number; before?: number }>()
  watch(name, () => (checked.value = false))
  function check() {
    checked.value = !checked.value
    const { began, last } = sheet.value
    if (!checked.value) time.value = undefined
    else if (began !== undefined) {
      const took = (now() - began) / 1000
      time.value = { took, before: last }
      write({ began: undefined, last: took })
    }
  }
  function clear() {
    checked.value = false
    write({ marks: {}, began: undefined })
  }
  return { marksOf, mark, checked, time, check, clear }
}
