/* What sounds on each row of a stretch, as an image that is stretched to the rows. */
import { shallowRef, watch, type Ref } from 'vue'
import type { Stretch } from '../../recording/inHand'
import type { Sound } from '../../recording/sound'

const columns = 360

export function useRowsImage(
  canvas: Ref<HTMLCanvasElement | null>,
  of: () => { sound: Sound; stretch: Stretch; rows: { low: number; high: number }; cents: number },
) {
  const image = shallowRef<Uint8Array>()
  let asked = 0
  async function look() {
    const mine = ++asked
    const { sound, stretch, rows, cents } = of()
    const got = await sound.rows({ from: stretch.from, to: stretch.to, ...rows, columns, cents })
    if (mine === asked) image.value = got
  }
  watch(
    () => {
      const { sound, stretch, rows, cents } = of()
      return [stretch.from, stretch.to, rows.low, rows.high, cents, sound.whole.value]
    },
    () => void look(),
    { immediate: true },
  )
  function paint() {
    const c = canvas.value
    const pen = c?.getContext('2d')
    const list = image.value
    if (!c || !pen || !list) return
    const n = list.length / columns
    c.width = columns
    c.height = n
    const picture = pen.createImageData(columns, n)
    const ink = getComputedStyle(c)
      .color.match(/[\d.]+/g)!
      .map(Number)
    for (let i = 0; i < columns; i++)
      for (let r = 0; r < n; r++) {
        const at = 4 * ((n - 1 - r) * columns + i)
        picture.data.set([ink[0]!, ink[1]!, ink[2]!, Math.max(0, list[i * n + r]! - 70)], at)
      }
    pen.putImageData(picture, 0, 0)
  }
  watch([image, canvas], paint, { flush: 'post' })
}
