/* On a narrow screen a part of the neck is in view: a finger draws it along, two spread it or bring it together. */
import { ref, watch } from 'vue'

export interface View {
  /** The first and the last fret in view. */
  from: number
  to: number
}

/** The fewest frets that are in view. */
const fewest = 4
/** How far a finger goes before it draws, in pixels: less is a press. */
const slack = 10

/** frame is what is in view now, over how many pixels; last the neck's last fret; home says where it goes back to. */
export function usePanned(
  frame: () => View & { width: number },
  last: () => number,
  left: () => boolean,
  home: () => unknown,
) {
  const view = ref<View>()
  const fingers = new Map<number, number>()
  let began: { view: View; width: number; middle: number; apart: number } | undefined
  let drawn = false
  watch(home, () => (view.value = undefined))

  const middle = () => [...fingers.values()].reduce((a, b) => a + b, 0) / fingers.size
  const apart = () => Math.max(...fingers.values()) - Math.min(...fingers.values())
  function begin() {
    const { from, to, width } = frame()
    began = fingers.size ? { view: { from, to }, width, middle: middle(), apart: apart() } : undefined
  }
  function down(e: PointerEvent) {
    if (e.pointerType === 'mouse') return
    if (!fingers.size) drawn = false
    fingers.set(e.pointerId, e.clientX)
    begin()
  }
  function move(e: PointerEvent) {
    if (!began || !fingers.has(e.pointerId)) return
    fingers.set(e.pointerId, e.clientX)
    const wide = began.view.to - began.view.from
    const along = (middle() - began.middle) * (left() ? -1 : 1)
    const spread = fingers.size > 1 && began.apart > 0 ? apart() / began.apart : 1
    drawn ||= Math.abs(along) > slack || Math.abs(apart() - began.apart) > slack
    if (!drawn) return
    const frets = Math.min(last(), Math.max(fewest, Math.round(wide / Math.max(spread, 0.1))))
    // What lay under the fingers stays there.
    const still = began.view.from + wide / 2 - (along * wide) / began.width
    const from = Math.min(last() - frets, Math.max(0, Math.round(still - frets / 2)))
    view.value = { from, to: from + frets }
  }
  function up(e: PointerEvent) {
    fingers.delete(e.pointerId)
    begin()
  }
  return { view, down, move, up, drawn: () => drawn }
}
