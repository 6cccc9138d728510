/** Bars as a player lists them: 1 5 9-10, from 1 to the last. What is no bar is said. */
export function readBars(text: string, last: number): { bars: number[]; said?: string } {
  const bars = new Set<number>()
  for (const word of text.split(/[\s,;]+/).filter(Boolean)) {
    const m = /^(\d{1,5})(?:[-–](\d{1,5}))?$/.exec(word)
    const from = Number(m?.[1])
    const to = Number(m?.[2] ?? m?.[1])
    if (!m || from < 1 || to > last || to < from)
      return { bars: [], said: `“${word}” is no bar of this line; write bars from 1 to ${last}, such as 1 5 9-10.` }
    for (let bar = from; bar <= to; bar++) bars.add(bar)
  }
  return { bars: [...bars].sort((a, b) => a - b), said: bars.size ? undefined : 'Which bars? Such as 1 5 9-10.' }
}
