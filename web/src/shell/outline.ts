/* A place that has no sentence of its own is told by what stands in it: its name, how much it lists, its parts with what each begins with. */

const text = (e?: Element | null): string =>
  [...(e?.childNodes ?? [])]
    .map((n) => (n instanceof Element ? (n.matches('svg, .hidden-text') ? '' : text(n)) : (n.textContent ?? '')))
    .join(' ')
    .replace(/\s+/g, ' ')
    .trim()
const sentence = (words: string) => (/[.!?]$/.test(words) ? words : `${words}.`)
/** As much of a text as is told at once. */
const most = 160

export function outline(main: Element): string {
  const seen = (e: Element) => e.checkVisibility?.() ?? true
  const name = text(main.querySelector('h1')) || document.title.split(' · ')[0]!
  const says = name ? [name] : []
  const rows = [...main.querySelectorAll('li')].filter(
    (li) => seen(li) && !li.parentElement?.closest('li, nav, .legend'),
  )
  if (rows.length) {
    says[0] = `${name ? `${name}: ` : ''}${rows.length} ${rows.length === 1 ? 'entry' : 'entries'}`
    says.push(`The first is ${text(rows[0]!.querySelector('a, b, strong') ?? rows[0])}`)
  }
  for (const part of [...main.querySelectorAll('h2, h3')].filter(seen)) {
    const title = text(part)
    let next = part.nextElementSibling
    while (next && !next.matches('p, h2, h3')) next = next.nextElementSibling
    const words = next?.matches('p') ? text(next) : ''
    if (title) says.push(words && words.length <= most ? `${title}: ${words}` : title)
  }
  if (says.length < 2) {
    const words = text(main.querySelector('p'))
    if (words) says.push(words.slice(0, most))
  }
  return says.map(sentence).join(' ')
}
