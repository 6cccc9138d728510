/* Which of a chart's written bars are chosen, and what is done to them. */
import { computed, ref, watch } from 'vue'
import { carried, move, put, remove, span, type Span, type Tile } from './tiles'

export function useTiles(props: {
  bars: (Tile & { chords?: string })[]
  /** puts other bars in place of these; false where they cannot be read */
  change: (name: string, bars: Tile[]) => Promise<boolean>
}) {
  /** The chosen bars go from an anchor to the one in hand. */
  const anchor = ref(0)
  const here = ref(-1)
  const chosen = computed<Span | undefined>(() => (here.value < 0 ? undefined : span(anchor.value, here.value)))
  const isChosen = (i: number) => !!chosen.value && i >= chosen.value.from && i <= chosen.value.to
  watch(
    () => props.bars.length,
    (n) => {
      here.value = Math.min(here.value, n - 1)
      anchor.value = Math.min(anchor.value, n - 1)
    },
  )

  function choose(i: number, wider = false) {
    here.value = Math.max(0, Math.min(i, props.bars.length - 1))
    if (!wider) anchor.value = here.value
  }
  async function done(name: string, bars: Tile[], now?: Span) {
    if (!(await props.change(name, bars)) || !now) return
    anchor.value = now.from
    here.value = now.to
  }
  const several = computed(() => (chosen.value && chosen.value.to > chosen.value.from ? 'bars' : 'a bar'))
  function drop() {
    if (chosen.value) void done(`${several.value} gone`, remove(props.bars, chosen.value))
  }
  function shift(by: 1 | -1) {
    const c = chosen.value
    if (c) moveTo(by < 0 ? c.from - 1 : c.to + 2)
  }
  function moveTo(before: number) {
    if (!chosen.value || before < 0 || before > props.bars.length) return
    const { bars, now } = move(props.bars, chosen.value, before)
    void done(`${several.value} moved`, bars, now)
  }
  const taken = () => carried(props.bars.slice(chosen.value!.from, chosen.value!.to + 1))
  /** Once more behind themselves. */
  function double() {
    const c = chosen.value
    if (!c) return
    const n = c.to - c.from + 1
    void done(`${several.value} doubled`, put(props.bars, c.to + 1, props.bars.slice(c.from, c.to + 1)), { from: c.to + 1, to: c.to + n }) // prettier-ignore
  }
  function add() {
    const at = chosen.value ? chosen.value.to + 1 : props.bars.length
    const last = props.bars[at - 1]
    void done('a bar more', put(props.bars, at, [{ text: last?.text.replace(/[:[].*?\]|[:|]|\bx\d/g, '').trim() || 'N.C.' }]), span(at, at)) // prettier-ignore
  }
  /** A beat before the first bar, of the chord that the last one ends on. */
  function lead() {
    const chord =
      props.bars
        .at(-1)
        ?.chords?.split(' ')
        .findLast((c) => c !== '.') ?? 'N.C.'
    void done('a pickup', [{ text: `pickup 1/4 ${chord}`, pickup: true }, ...props.bars], span(0, 0))
  }

  return { lead, here, chosen, isChosen, choose, done, drop, shift, moveTo, taken, double, add, several }
}
