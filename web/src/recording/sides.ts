/* Which of the two sides of a recording are heard. */

/** What both sides have in the same way is the middle; what they have against each other is beside it. */
export type Side = 'both' | 'left' | 'right' | 'middle' | 'beside'

export const sides: { id: Side; name: string; title: string }[] = [
  { id: 'both', name: 'both sides', title: 'as it was recorded' },
  { id: 'left', name: 'left', title: 'only the left side' },
  { id: 'right', name: 'right', title: 'only the right side' },
  { id: 'middle', name: 'middle', title: 'what both sides have together: often the singer and the lead' },
  { id: 'beside', name: 'without the middle', title: 'what the sides have against each other' },
]

export function mixOf(both: Float32Array[], side: Side): Float32Array[] {
  const [left, right] = [both[0]!, both[1] ?? both[0]!]
  if (side === 'left') return [left]
  if (side === 'right') return [right]
  if (side === 'middle') return [left.map((l, i) => (l + right[i]!) / 2)]
  if (side === 'beside') return [left.map((l, i) => (l - right[i]!) / 2)]
  return both
}

/** At another rate, by the browser's own means. */
export async function resampled(both: Float32Array[], from: number, to: number): Promise<Float32Array[]> {
  const n = both[0]!.length
  const context = new OfflineAudioContext(both.length, Math.max(1, Math.round((n * to) / from)), to)
  const buffer = context.createBuffer(both.length, n, from)
  both.forEach((s, c) => buffer.copyToChannel(s as Float32Array<ArrayBuffer>, c))
  const node = new AudioBufferSourceNode(context, { buffer })
  node.connect(context.destination)
  node.start()
  const out = await context.startRendering()
  return both.map((_, c) => out.getChannelData(c))
}
