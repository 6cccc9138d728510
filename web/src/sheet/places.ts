/* Places in a text that is typed: they are counted in characters, and the browser counts halves of some. */

/** Selects a stretch of a field's text, and shows it. */
export function pointAt(field: HTMLTextAreaElement, offset: number, length: number) {
  const letters = [...field.value]
  const at = (n: number) => letters.slice(0, n).join('').length
  field.focus()
  field.setSelectionRange(at(offset), at(offset + length))
  const before = letters.slice(0, offset).filter((c) => c === '\n').length
  const height = parseFloat(getComputedStyle(field).lineHeight)
  if (Number.isFinite(height)) field.scrollTop = Math.max(0, (before - 2) * height)
}

/** Where a line lies, from 1. */
export function lineAt(text: string, line: number) {
  const lines = text.split('\n')
  const offset = lines.slice(0, line - 1).reduce((sum, l) => sum + [...l].length + 1, 0)
  return { offset, length: [...(lines[line - 1] ?? '')].length }
}

/** A text with what would be read in the place of what cannot be. */
export function mended(text: string, offset: number, length: number, nearest: string) {
  const letters = [...text]
  letters.splice(offset, length, nearest === '%' ? ' % ' : nearest)
  return letters.join('')
}
