/* The fonts of a drawing, put into it: only those files that its letters come from. */

/** Which letters a family is asked for. */
export type Used = Map<string, Set<string>>

/** The ranges of a face, such as U+0-FF, U+131, U+4??. */
export function ranges(text: string): [number, number][] {
  return text.split(',').flatMap((part): [number, number][] => {
    const m = /^\s*U\+([0-9A-F?]+)(?:-([0-9A-F]+))?\s*$/i.exec(part)
    if (!m) return []
    const [from, to] = [m[1]!.replaceAll('?', '0'), m[2] ?? m[1]!.replaceAll('?', 'F')]
    return [[parseInt(from, 16), parseInt(to, 16)]]
  })
}

/** Whether a face has any of the letters; without a range it has all. */
export const has = (range: string, letters: Iterable<string>) => {
  const all = ranges(range)
  return (
    !all.length ||
    [...letters].some((c) => all.some(([from, to]) => from <= c.codePointAt(0)! && c.codePointAt(0)! <= to))
  )
}

async function inline(url: string): Promise<string> {
  if (url.startsWith('data:')) return url
  const blob = await (await fetch(url)).blob()
  return new Promise((done, fail) => {
    const reader = new FileReader()
    reader.onload = () => done(String(reader.result))
    reader.onerror = () => fail(new Error('a font could not be read'))
    reader.readAsDataURL(blob)
  })
}

/** Fonts that were loaded without a style sheet. */
const loaded: Record<string, () => Promise<string>> = {
  Bravura: () => import('../../node_modules/vexflow/build/esm/src/fonts/bravura.js').then((m) => m.Bravura),
}

/** The rules that bring them. */
export async function faces(used: Used): Promise<string> {
  const out: Promise<string>[] = []
  for (const sheet of document.styleSheets)
    for (const rule of sheet.cssRules) {
      if (!(rule instanceof CSSFontFaceRule)) continue
      const { style } = rule
      const family = style.getPropertyValue('font-family').replace(/^["']|["']$/g, '')
      const letters = used.get(family)
      const url = /url\(["']?([^"')]+)["']?\)/.exec(style.getPropertyValue('src'))?.[1]
      if (!letters || !url || !has(style.getPropertyValue('unicode-range'), letters)) continue
      const more = ['font-weight', 'font-style', 'font-stretch', 'unicode-range']
        .map((name) => [name, style.getPropertyValue(name)])
        .filter(([, value]) => value)
        .map(([name, value]) => `${name}:${value};`)
      const at = new URL(url, sheet.href ?? document.baseURI).href
      out.push(inline(at).then((data) => `@font-face{font-family:"${family}";${more.join('')}src:url("${data}")}`))
    }
  for (const [family, load] of Object.entries(loaded))
    if (used.has(family))
      out.push(
        load()
          .then(inline)
          .then((data) => `@font-face{font-family:"${family}";src:url("${data}")}`),
      )
  return (await Promise.all(out)).join('')
}
