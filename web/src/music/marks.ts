/** Our marks: degree is told by shape and colour and label at once. */
export type Shape = 'pick' | 'diamond' | 'disc' | 'banner' | 'ring'

export interface Mark {
  shape: Shape
  colour: string
  role: string
  /** How a line of it is drawn, told from the others without its colour: its thickness, and its dashes, in pixels. */
  rail: { width: number; dash: string }
}

const root: Mark = { shape: 'pick', colour: 'var(--ink)', role: 'root', rail: { width: 3.6, dash: '' } }
const third: Mark = { shape: 'diamond', colour: 'var(--third)', role: 'third', rail: { width: 3, dash: '7 2' } }
const fifth: Mark = { shape: 'disc', colour: 'var(--fifth)', role: 'fifth', rail: { width: 2, dash: '' } }
const seventh: Mark = {
  shape: 'banner',
  colour: 'var(--seventh)',
  role: 'sixth or seventh',
  rail: { width: 3, dash: '2.5 2' },
}
const extension: Mark = {
  shape: 'ring',
  colour: 'var(--ext)',
  role: 'extension',
  rail: { width: 1.4, dash: '1.5 2.5' },
}

const byDegree: Record<string, Mark> = {
  R: root,
  b3: third,
  '3': third,
  b5: fifth,
  '5': fifth,
  '#5': fifth,
  '6': seventh,
  b7: seventh,
  '7': seventh,
}

export const markOf = (degree: string): Mark => byDegree[degree] ?? extension

/** The legend, in the order chords are stacked. */
export const legend: { degree: string; text: string; short: string }[] = [
  { degree: 'R', text: 'root', short: 'root' },
  { degree: '3', text: 'third', short: 'third' },
  { degree: '5', text: 'fifth', short: 'fifth' },
  { degree: 'b7', text: 'sixth, seventh', short: '6, 7' },
  { degree: '9', text: 'extension', short: '9–13' },
]

/** Outline of a shape of radius r around a point. */
export function outline(shape: Shape, r: number, cx = 0, cy = 0): string {
  const p = (x: number, y: number) => `${+(cx + x * r).toFixed(2)} ${+(cy + y * r).toFixed(2)}`
  switch (shape) {
    case 'pick':
      return `M ${p(-1.04, -0.78)} Q ${p(0, -1.2)} ${p(1.04, -0.78)} Q ${p(1, 0.26)} ${p(0, 1.16)} Q ${p(-1, 0.26)} ${p(-1.04, -0.78)} Z`
    case 'diamond':
      return `M ${p(0, -1.18)} L ${p(1.18, 0)} L ${p(0, 1.18)} L ${p(-1.18, 0)} Z`
    case 'banner':
      return `M ${p(-0.95, -0.98)} L ${p(0.95, -0.98)} L ${p(0.95, 1.1)} L ${p(0, 0.68)} L ${p(-0.95, 1.1)} Z`
    default: {
      const k = shape === 'ring' ? 0.86 : 1
      return `M ${p(0, -k)} A ${k * r} ${k * r} 0 1 1 ${p(0, k)} A ${k * r} ${k * r} 0 1 1 ${p(0, -k)} Z`
    }
  }
}

/** How far below the centre the middle of the label sits, in radii. */
export const labelDrop: Record<Shape, number> = { pick: -0.12, diamond: 0, disc: 0, banner: -0.1, ring: 0 }
