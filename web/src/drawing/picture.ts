/*
 * What a place shows as one SVG that stands by itself: drawings keep their shapes, text stays text, and
 * boxes of the page become rectangles. Colours, sizes and fonts are those that are seen.
 */
import { faces, type Used } from './fonts'

/** What is inherited, and what stands for itself with what it is without saying. */
const inherited = [
  'fill',
  'fill-opacity',
  'fill-rule',
  'stroke',
  'stroke-width',
  'stroke-opacity',
  'stroke-dasharray',
  'stroke-linecap',
  'stroke-linejoin',
  'paint-order',
  'text-anchor',
  'font-family',
  'font-size',
  'font-weight',
  'font-style',
  'letter-spacing',
]
const single: Record<string, string> = {
  opacity: '1',
  transform: 'none',
  'dominant-baseline': 'auto',
  'clip-path': 'none',
  mask: 'none',
  'vector-effect': 'none',
}
/** What belongs to the page and not to the drawing. */
const aside = 'script, style, input, select, textarea, .p-button, .p-popover, [data-undrawn]'
const foreign = /^(class|style|tabindex|role|data-.*|aria-.*|on.*)$/

const none = new Set(['none', 'transparent', 'rgba(0, 0, 0, 0)'])
const unseen = (s: CSSStyleDeclaration) => s.display === 'none' || s.visibility !== 'visible' || s.opacity === '0'
const quoted = (text: string) => text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`)
const short = (n: number) => String(Math.round(n * 100) / 100)

class Picture {
  readonly out: string[] = []
  readonly used: Used = new Map()
  private readonly measure = document.createElement('canvas').getContext('2d')!

  constructor(private readonly origin: DOMRect) {}

  private note(style: CSSStyleDeclaration, text: string) {
    for (const family of style.fontFamily.split(',')) {
      const name = family.trim().replace(/^["']|["']$/g, '')
      const seen = this.used.get(name) ?? new Set()
      for (const c of text) seen.add(c)
      this.used.set(name, seen)
    }
  }

  element(el: Element) {
    if (el.matches(aside)) return
    const style = getComputedStyle(el)
    if (unseen(style)) return
    if (el instanceof SVGSVGElement) return this.drawing(el, style)
    this.box(el, style)
    for (const child of el.childNodes) {
      if (child instanceof Element) this.element(child)
      else if (child instanceof Text) this.text(child, style)
    }
  }

  /** Background and borders. */
  private box(el: Element, style: CSSStyleDeclaration) {
    const r = el.getBoundingClientRect()
    const [x, y] = [r.x - this.origin.x, r.y - this.origin.y]
    const rect = (x: number, y: number, w: number, h: number, more: string) =>
      w > 0 &&
      h > 0 &&
      this.out.push(`<rect x="${short(x)}" y="${short(y)}" width="${short(w)}" height="${short(h)}" ${more}/>`)
    const round = parseFloat(style.borderTopLeftRadius) || 0
    if (!none.has(style.backgroundColor))
      rect(x, y, r.width, r.height, `rx="${short(Math.min(round, r.height / 2))}" fill="${style.backgroundColor}"`)
    const sides = (['Top', 'Right', 'Bottom', 'Left'] as const).map((side) => ({
      width: style[`border${side}Style`] === 'none' ? 0 : parseFloat(style[`border${side}Width`]),
      colour: style[`border${side}Color`],
      dashed: style[`border${side}Style`] !== 'solid',
    }))
    const [top, right, bottom, left] = sides as [
      (typeof sides)[0],
      (typeof sides)[0],
      (typeof sides)[0],
      (typeof sides)[0],
    ]
    const seen = (s: (typeof sides)[0]) => s.width > 0 && !none.has(s.colour)
    if (sides.every((s) => seen(s) && s.width === top.width && s.colour === top.colour)) {
      const dash = top.dashed ? `stroke-dasharray="${3 * top.width}"` : ''
      const half = top.width / 2
      rect(
        x + half,
        y + half,
        r.width - top.width,
        r.height - top.width,
        `rx="${short(Math.min(round, r.height / 2))}" fill="none" stroke="${top.colour}" stroke-width="${top.width}" ${dash}`,
      )
      return
    }
    if (seen(top)) rect(x, y, r.width, top.width, `fill="${top.colour}"`)
    if (seen(bottom)) rect(x, y + r.height - bottom.width, r.width, bottom.width, `fill="${bottom.colour}"`)
    if (seen(left)) rect(x, y, left.width, r.height, `fill="${left.colour}"`)
    if (seen(right)) rect(x + r.width - right.width, y, right.width, r.height, `fill="${right.colour}"`)
  }

  /** A text, line by line as the page broke it. */
  private text(node: Text, style: CSSStyleDeclaration) {
    if (!node.data.trim()) return
    const range = document.createRange()
    const lines: { text: string; rect: DOMRect }[] = []
    for (let i = 0; i < node.length;) {
      const size = node.data.codePointAt(i)! > 0xffff ? 2 : 1
      range.setStart(node, i)
      range.setEnd(node, i + size)
      const rect = range.getClientRects()[0]
      const line = lines.at(-1)
      const c = node.data.slice(i, i + size)
      if (rect?.width) {
        if (line && Math.abs(line.rect.y - rect.y) < 2) line.text += c
        else lines.push({ text: c, rect })
      }
      i += size
    }
    this.measure.font = `${style.fontStyle} ${style.fontWeight} ${style.fontSize} ${style.fontFamily}`
    for (const { text, rect } of lines) {
      const said = (style.textTransform === 'uppercase' ? text.toUpperCase() : text).replace(/\s/g, ' ')
      if (!said.trim()) continue
      const { fontBoundingBoxAscent: up, fontBoundingBoxDescent: down } = this.measure.measureText(said)
      const x = rect.x - this.origin.x
      const y = rect.y - this.origin.y + (rect.height - up - down) / 2 + up
      this.note(style, said)
      this.out.push(
        `<text x="${short(x)}" y="${short(y)}" xml:space="preserve" style="font:${quoted(this.measure.font)};fill:${style.color};letter-spacing:${style.letterSpacing}${style.opacity === '1' ? '' : `;opacity:${style.opacity}`}">${quoted(said)}</text>`,
      )
    }
  }

  private drawing(svg: SVGSVGElement, style: CSSStyleDeclaration) {
    const r = svg.getBoundingClientRect()
    if (!r.width || !r.height) return
    const copy = svg.cloneNode(true) as SVGSVGElement
    this.dress(svg, copy, style)
    for (const [name, value] of Object.entries({
      x: r.x - this.origin.x,
      y: r.y - this.origin.y,
      width: r.width,
      height: r.height,
    }))
      copy.setAttribute(name, short(value))
    if (style.overflow === 'visible') copy.setAttribute('overflow', 'visible')
    this.out.push(new XMLSerializer().serializeToString(copy))
  }

  /** Gives a copy the look of what it was copied from, and leaves out what is not seen. */
  private dress(from: Element, to: Element, style: CSSStyleDeclaration, above?: CSSStyleDeclaration) {
    for (const { name, value } of [...to.attributes])
      if (foreign.test(name) || value.includes('var(')) to.removeAttribute(name)
    const look: string[] = []
    for (const name of inherited) {
      const value = style.getPropertyValue(name)
      if (value !== above?.getPropertyValue(name)) look.push(`${name}:${value}`)
    }
    for (const [name, usual] of Object.entries(single)) {
      const value = style.getPropertyValue(name)
      if (value && value !== usual && !(name === 'transform' && (!above || from.hasAttribute('transform')))) {
        look.push(`${name}:${value}`)
        if (name === 'transform')
          look.push(`transform-origin:${style.transformOrigin};transform-box:${style.transformBox}`)
      }
    }
    if (look.length) to.setAttribute('style', look.join(';'))
    const texts = [...from.childNodes].filter((n): n is Text => n instanceof Text).map((n) => n.data)
    if (texts.some((t) => t.trim())) this.note(style, texts.join(''))
    const copies = [...to.children]
    for (const [i, child] of [...from.children].entries()) {
      const copy = copies[i]!
      const its = getComputedStyle(child)
      const shape = /^(rect|circle|ellipse|path|line|poly)/.test(child.tagName)
      if (child.tagName === 'title' || unseen(its) || (shape && none.has(its.fill) && none.has(its.stroke)))
        copy.remove()
      else this.dress(child, copy, its, style)
    }
  }
}

/** The first colour that is seen behind something. */
function ground(el: Element | null): string {
  for (; el; el = el.parentElement) {
    const { backgroundColor } = getComputedStyle(el)
    if (!none.has(backgroundColor)) return backgroundColor
  }
  return 'white'
}

const margin = 16

/** Everything that is seen of some parts of the page, as one SVG, with its size in pixels. */
export async function picture(root: Element): Promise<{ svg: string; width: number; height: number }> {
  const r = root.getBoundingClientRect()
  const p = new Picture(new DOMRect(r.x - margin, r.y - margin, 0, 0))
  p.element(root)
  const [width, height] = [Math.ceil(r.width + 2 * margin), Math.ceil(r.height + 2 * margin)]
  const style = await faces(p.used)
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}"><style>${style}</style><rect width="100%" height="100%" fill="${ground(root)}"/>${p.out.join('')}</svg>`
  return { svg, width, height }
}
