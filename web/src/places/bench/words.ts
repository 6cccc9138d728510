/** How far away a change is: "in a bar", "in 2 beats"; in beats alone where the bars differ. */
export function away(beats: number, { beats: perBar, lengths }: { beats: number; lengths?: number[] | null }): string {
  const bars = beats / perBar
  if (!lengths) {
    if (bars === 1) return 'in a bar'
    if (Number.isInteger(bars)) return `in ${bars} bars`
  }
  return beats === 1 ? 'in a beat' : `in ${beats} beats`
}

/** "a", "a or b", "a, b or c". */
export const either = (parts: string[]): string =>
  parts.length < 2 ? (parts[0] ?? '') : `${parts.slice(0, -1).join(', ')} or ${parts.at(-1)}`

export const half = ['', 'a half step', 'a whole step', 'three half steps']
