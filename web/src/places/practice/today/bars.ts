/* Bars, as they are told. */

/** Numbers in order, told by their runs: "bar 5", "bars 1, 3 and 5 to 8". */
export function inBars(numbers: number[]): string {
  const sorted = [...new Set(numbers)].toSorted((a, b) => a - b)
  const runs: [number, number][] = []
  for (const n of sorted) {
    const last = runs.at(-1)
    if (last && last[1] === n - 1) last[1] = n
    else runs.push([n, n])
  }
  const told = runs.flatMap(([a, b]) => (b - a > 1 ? [`${a} to ${b}`] : a === b ? [`${a}`] : [`${a}`, `${b}`]))
  const list = told.length > 1 ? `${told.slice(0, -1).join(', ')} and ${told.at(-1)}` : (told[0] ?? '')
  return sorted.length === 1 ? `bar ${list}` : `bars ${list}`
}
