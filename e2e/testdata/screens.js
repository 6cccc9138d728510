// What is wrong with the place in view at the width it has now, each fault as a sentence.
window.screens = (() => {
  const name = (e) => {
    const text = (e.getAttribute?.('aria-label') || e.textContent || '').trim().replace(/\s+/g, ' ').slice(0, 40)
    const at = e.className?.baseVal ?? e.className ?? ''
    const over = e.closest('section, article, header, nav, aside, form, fieldset, dialog, main')
    const about = over ? `${over.tagName.toLowerCase()}.${String(over.className).split(' ')[0]} ` : ''
    return `${about}<${e.tagName.toLowerCase()}${at ? '.' + String(at).split(' ')[0] : ''}> "${text}"`
  }
  const seen = (e) => e.checkVisibility({ visibilityProperty: true, opacityProperty: false }) && !e.closest('.hidden-text, [inert], .skip')
  const many = (list) => [...new Set(list)]

  /** Whoever is wider than the screen makes all of it go sideways. */
  function wider() {
    const root = document.documentElement
    if (root.scrollWidth <= root.clientWidth) return []
    const out = [...document.querySelectorAll('body *')].filter((e) => {
      if (!seen(e) || e.getBoundingClientRect().right <= root.clientWidth + 1) return false
      for (let a = e.parentElement; a && a !== document.body; a = a.parentElement)
        if (getComputedStyle(a).overflowX !== 'visible') return false
      return true
    })
    return [`wider: ${root.scrollWidth} px: ${many(out.slice(-3).map(name)).join(', ')}`]
  }

  const letters = (root) => {
    const walk = document.createTreeWalker(root, NodeFilter.SHOW_TEXT)
    const found = []
    for (let n = walk.nextNode(); n; n = walk.nextNode()) if (n.data.trim() && n.parentElement && seen(n.parentElement)) found.push(n)
    return found
  }

  /** Letters that stick out of what hides what sticks out. */
  function cut() {
    const range = document.createRange()
    const out = []
    for (const n of letters(document.body)) {
      const e = n.parentElement
      if (e.closest('option, script, style, svg')) continue
      range.selectNodeContents(n)
      const r = range.getBoundingClientRect()
      if (!r.width) continue
      for (let a = e; a && a !== document.body; a = a.parentElement) {
        const s = getComputedStyle(a)
        if (s.clipPath !== 'none') break
        const b = a.getBoundingClientRect()
        const x = s.overflowX === 'hidden' || s.overflowX === 'clip'
        const y = s.overflowY === 'hidden' || s.overflowY === 'clip'
        const beyond = Math.max(r.right - b.right, b.left - r.left)
        const below = Math.max(r.bottom - b.bottom, b.top - r.top)
        if ((x && beyond > 1.5) || (y && below > 0.4 * r.height)) {
          out.push(`cut: ${name(e)} ${Math.round(b.width)} of ${Math.round(r.width)} px`)
          break
        }
        if (s.overflowX === 'auto' || s.overflowX === 'scroll' || s.position === 'fixed') break
      }
    }
    return many(out)
  }

  /** Sentences in columns that hold a word or two. */
  function squeezed() {
    return many(
      letters(document.querySelector('main'))
        .map((n) => n.parentElement)
        .filter((e) => {
          const text = e.textContent.trim()
          if (e.closest('svg, option, .cell') || text.length < 50 || getComputedStyle(e).display === 'inline') return false
          const { width, height } = e.getBoundingClientRect()
          return width > 0 && width < 130 && height > 4 * width * 0.6
        })
        .map((e) => `squeezed: ${name(e)} ${Math.round(e.getBoundingClientRect().width)} px`),
    )
  }

  /** What lies under the strip of a place that is played from: the page ends where the strip does. */
  const under = () =>
    document.documentElement.scrollHeight > innerHeight + 1 ? [`under the strip: ${document.documentElement.scrollHeight - innerHeight} px`] : []

  /** What the strip plays is what the place is of. */
  function tune(title) {
    const said = document.querySelector('aside.strip .where')?.textContent.trim() ?? ''
    return seen(document.querySelector('aside.strip')) && !said.includes(title) ? [`the strip plays "${said}", not "${title}"`] : []
  }

  /** Names that are read out letter by letter: "Eb b7", "3:9→3:8". */
  function raw() {
    return many(
      [...document.querySelectorAll('[aria-label]')]
        .filter((e) => seen(e.closest('svg') ?? e))
        .map((e) => e.getAttribute('aria-label'))
        .filter((said) => /(^|[\s,:(])([A-G](b|#)|(b|#)\d)|\d:\d+ ?→|[♭♯]/.test(said))
        .map((said) => `read letter by letter: ${said.trim().replace(/\s+/g, ' ').slice(0, 90)}`),
    )
  }

  const controls = () =>
    [...document.querySelectorAll('button, a[href], input, select, textarea, summary, [role=button], [role=option], [role=tab], [role=slider], [role=switch]')].filter(
      (e) => seen(e) && !e.disabled && e.getBoundingClientRect().width > 0 && !e.closest('svg'),
    )
  /** What a finger meets: a field with what stands around it. */
  const met = (e) => {
    const around = e.closest('label') ?? e.closest('.p-checkbox, .p-radiobutton, .p-select, .p-multiselect, .p-inputnumber, .p-togglebutton, .p-slider, .p-toggleswitch')
    const own = e.getBoundingClientRect()
    const box = around?.getBoundingClientRect()
    return { width: Math.max(own.width, box?.width ?? 0), height: Math.max(own.height, box?.height ?? 0) }
  }
  /** What is too small for a thumb; links within a sentence are as large as its letters. */
  function small(least) {
    return many(
      controls()
        .filter((e) => {
          if (e.tagName === 'A' && getComputedStyle(e).display === 'inline') return false
          const { width, height } = met(e)
          return width < least - 0.5 || height < least - 0.5
        })
        .map((e) => `small: ${name(e)} ${Math.round(met(e).width)} × ${Math.round(met(e).height)}`),
    )
  }

  /** What lies under something else wherever the page is scrolled to. */
  function covered() {
    const out = []
    for (const e of controls()) {
      e.scrollIntoView({ block: 'center', inline: 'center' })
      const spots = [...e.getClientRects()].flatMap((r) => [
        [r.x + r.width / 2, r.y + r.height / 2],
        [r.x + 6, r.y + r.height / 2],
      ])
      const met = spots.some(([x, y]) => {
        const top = document.elementFromPoint(x, y)
        return top && (e.contains(top) || top.contains(e) || e.labels?.[0]?.contains(top) || top.closest('label')?.contains(e))
      })
      if (!met) out.push(`covered: ${name(e)}`)
    }
    scrollTo(0, 0)
    return many(out)
  }

  /** Letters that are drawn smaller than can be read. */
  function tiny(least, within) {
    const out = []
    for (const part of document.querySelectorAll(within))
      for (const n of letters(part)) {
        const e = n.parentElement
        let size = parseFloat(getComputedStyle(e).fontSize)
        const m = e.closest('svg') && e.getScreenCTM?.()
        if (m) size *= Math.sqrt(Math.abs(m.a * m.d - m.b * m.c))
        if (size < least - 0.05) out.push(`tiny: ${name(e)} ${size.toFixed(1)} px`)
      }
    return many(out)
  }

  /** How high what stays at the foot is. */
  function foot(most) {
    const strip = [...document.querySelectorAll('aside.strip, footer[aria-label="the recording plays"]')].filter(seen)
    return strip.flatMap((e) => {
      const r = e.getBoundingClientRect()
      const low = Math.abs(r.bottom - innerHeight) <= 1
      return [...(r.height > most ? [`strip: ${Math.round(r.height)} px`] : []), ...(low ? [] : [`strip: ends at ${Math.round(r.bottom)} of ${innerHeight} px`])]
    })
  }
  return { raw, under, tune, wider, cut, squeezed, small, covered, tiny, foot, controls }
})()
