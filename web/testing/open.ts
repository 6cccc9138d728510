/* The whole page in a document without a browser, answered by the real program: what it says, draws and
   sends is tried here in a tenth of the time. What needs layout, sound or a clock is tried in Chromium. */
import 'fake-indexeddb/auto'
import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { afterAll, afterEach, expect } from 'vitest'

/* Starts the program with the demo data; it ends with the file of tests. */
async function program() {
  const data = mkdtempSync(join(tmpdir(), 'page-'))
  const path = process.env.UNDARIS ?? resolve(import.meta.dirname, '../../bin/undaris')
  const it = spawn(path, ['demo', '--addr', '127.0.0.1:0', '--data', data], { stdio: ['ignore', 'pipe', 'pipe'] })
  const gone = new Promise((done) => it.once('exit', done))
  process.once('exit', () => it.kill('SIGKILL'))
  afterAll(async () => {
    // What is still asked is answered first, as far as it is within reason: nobody is there to hear that it was cut off.
    for (const from = performance.now(); asking > 0 && performance.now() - from < 5_000;) await pause(20)
    it.kill('SIGKILL')
    await gone
    rmSync(data, { recursive: true, force: true })
  })
  return new Promise<string>((found, failed) => {
    let said = ''
    const hear = (part: Buffer) => {
      const at = (said += String(part)).match(/http:\/\/[\d.:]+/)
      if (at) found(at[0])
    }
    it.stdout.on('data', hear)
    it.stderr.on('data', hear)
    it.once('error', failed)
    it.once('exit', () => failed(new Error(`the program ended: ${said}`)))
  })
}

/* What a browser has and this document has not: letters with a width, a look, fonts. */
function furnish() {
  const width = (text: string, font: string) => text.length * 0.55 * Number(/([\d.]+)p[xt]/.exec(font)?.[1] ?? 16)
  HTMLCanvasElement.prototype.getContext = function () {
    const pen = {
      font: '16px serif',
      measureText: (text: string) => ({
        width: width(text, pen.font),
        actualBoundingBoxAscent: 10,
        actualBoundingBoxDescent: 3,
        actualBoundingBoxLeft: 0,
        actualBoundingBoxRight: width(text, pen.font),
        fontBoundingBoxAscent: 12,
        fontBoundingBoxDescent: 4,
      }),
      scale: () => {},
    }
    return pen as never
  } as never
  Object.defineProperty(document, 'fonts', { value: { load: async () => [], ready: Promise.resolve(), add: () => {} } })
  // A pixel of a drawing is a pixel of the page: its own measures stand in for a layout.
  Element.prototype.getBoundingClientRect = function () {
    const [, , w = 0, h = 0] = (this.getAttribute('viewBox') ?? '').split(/[ ,]+/).map(Number)
    const size = { width: w || 800, height: h || 400 }
    return {
      ...size,
      x: 0,
      y: 0,
      left: 0,
      top: 0,
      right: size.width,
      bottom: size.height,
      toJSON: () => size,
    } as DOMRect
  }
  for (const [name, size] of [
    ['offsetWidth', 1000],
    ['offsetHeight', 600],
    ['clientWidth', 1000],
    ['clientHeight', 600],
  ] as const)
    // prettier-ignore
    Object.defineProperty(HTMLElement.prototype, name, { get: () => size, configurable: true })
  const size = { inlineSize: 1000, blockSize: 600 }
  window.ResizeObserver = class {
    constructor(private readonly tell: ResizeObserverCallback) {}
    observe(target: Element) {
      const entry = { target, contentRect: { width: 1000, height: 600 }, contentBoxSize: [size], borderBoxSize: [size] }
      queueMicrotask(() => this.tell([entry as never], this as never))
    }
    unobserve() {}
    disconnect() {}
  } as never
  globalThis.ResizeObserver = window.ResizeObserver
  Element.prototype.scrollIntoView = () => {}
}

let base = ''
/** How many requests are under way. */
let asking = 0

/* Opens the page at an address. At the top of a file of tests: a document has one page. */
export async function open(path: string) {
  base = await program()
  ;(window as unknown as { happyDOM: { setURL: (url: string) => void } }).happyDOM.setURL(base + path)
  document.body.innerHTML = '<div id="app"></div>'
  furnish()
  // An address without a machine is the page's own.
  const whole = (what: RequestInfo | URL) => (what instanceof Request ? what : new URL(what, base))
  const [request, ask] = [Request, fetch]
  globalThis.Request = class extends request {
    constructor(what: RequestInfo | URL, how?: RequestInit) {
      super(whole(what), how)
    }
  }
  globalThis.fetch = (what, how) => {
    asking++
    return ask(whole(what), how).finally(() => asking--)
  }
  // Tabs of one origin hear each other, and no others.
  const channel = BroadcastChannel
  globalThis.BroadcastChannel = window.BroadcastChannel = class extends channel {
    constructor(name: string) {
      super(`${base} ${name}`)
    }
  }
  await import('../src/main')
  // Whatever was done, nothing of it may be said to be lost for long.
  afterEach(() => until(() => !find('[aria-label="what is not saved"]')).then(() => undefined))
}

/* Goes to another address inside the page, as a link does. */
export async function visit(path: string) {
  const { router } = await import('../src/router')
  ;(document.activeElement as HTMLElement | null)?.blur()
  await router.push(path)
}

export const address = () => location.pathname + location.search

const pause = (ms: number) => new Promise((r) => setTimeout(r, ms))

/* Waits for something to become true, and gives it. The time is up only after a look that found nothing: a page that was busy meanwhile has had no chance to be seen. */
export async function until<T>(what: () => T | Promise<T>, wait = 20_000): Promise<NonNullable<T>> {
  let fault: unknown
  const from = performance.now()
  for (let last = false; ; await pause(8)) {
    try {
      const found = await what()
      if (found) return found
    } catch (e) {
      fault = e
    }
    if (last) break
    last = performance.now() - from > wait
  }
  return expect.fail(`never became true: ${what} ${fault ?? ''}\n${document.body.textContent?.slice(0, 900)}`)
}

/* Without layout nobody knows where a gap is, so no gap counts. */
const bare = (text: string | null | undefined) => (text ?? '').replace(/\s+/g, '')
const shown = (e: Element) =>
  !e.closest('[hidden]') && ![...ancestors(e)].some((a) => (a as HTMLElement).style?.display === 'none')
function* ancestors(e: Element | null) {
  for (; e; e = e.parentElement) yield e
}

export const all = <T extends Element = HTMLElement>(css: string) =>
  [...document.querySelectorAll<T>(css)].filter(shown)
export const texts = (css: string) => all(css).map((e) => (e.textContent ?? '').replace(/\s+/g, ' ').trim())
export const find = (css: string, text = '') => all(css).find((e) => bare((e.getAttribute('aria-label') ?? '') + e.textContent).includes(bare(text))) // prettier-ignore

export const sees = (css: string, text: string) => until(() => all(css).some((e) => bare(e.textContent).includes(bare(text))) || miss(css, text)) // prettier-ignore
const miss = (css: string, text: string) => {
  if (!text) throw new Error(`nothing is ${css}`)
  return false
}

/* Where a mark of a drawing lies, whose own measures are those of the page. */
function middle(e: Element) {
  let [clientX, clientY] = [0, 0]
  for (const a of ancestors(e)) {
    const by = /translate\(([-\d.]+)[ ,]+([-\d.]+)\)/.exec(a.getAttribute('transform') ?? '')
    clientX += Number(by?.[1] ?? 0)
    clientY += Number(by?.[2] ?? 0)
    if (a.tagName.toLowerCase() === 'svg') break
  }
  return { clientX, clientY }
}

/* Presses the first of what is named so, or has it in its label. */
export async function click(css: string, text = '', how: MouseEventInit = {}) {
  const found = await until(() => { const e = find(css, text); return e && !(e as HTMLButtonElement).disabled ? e : undefined }).catch(() => expect.fail(`nothing to press: ${css} ${text}\n${texts(css).join(' | ').slice(0, 600)}`)) // prettier-ignore
  // In the middle of what is no button lies the button that it holds.
  const answers = 'button, a, input, select, textarea, [tabindex], label'
  const e = found.matches(answers) ? found : (found.querySelector<HTMLElement>('button, a') ?? found)
  const say = (kind: string) => e.dispatchEvent(new (kind.startsWith('pointer') ? PointerEvent : MouseEvent)(kind, { bubbles: true, cancelable: true, composed: true, button: 0, detail: 1, ...middle(e), ...how })) // prettier-ignore
  say('pointerdown')
  say('mousedown')
  ;(e.closest<HTMLElement>(answers) ?? document.body).focus()
  say('pointerup')
  say('mouseup')
  say('click')
  await pause(0)
}

/* Strikes keys, one after the other, where the focus is. */
export async function keys(...list: string[]) {
  for (const name of list) {
    const how = name.split('+')
    const key = name === '+' ? '+' : how.pop()!
    const init = { key, code: key, bubbles: true, cancelable: true, composed: true, ctrlKey: how.includes('Control'), shiftKey: how.includes('Shift'), altKey: how.includes('Alt') } // prettier-ignore
    const at = document.activeElement ?? document.body
    if (at.dispatchEvent(new KeyboardEvent('keydown', init)) && key === 'Enter' && at instanceof HTMLElement && at.matches('button, a')) at.click() // prettier-ignore
    at.dispatchEvent(new KeyboardEvent('keyup', init))
    await pause(0)
  }
}

/* Puts a text into a field in place of what it holds. */
export async function write(css: string, text: string) {
  const e = (await until(() => all<HTMLInputElement>(css)[0])) as HTMLInputElement
  e.focus()
  await pause(0)
  e.value = text
  e.dispatchEvent(new InputEvent('input', { bubbles: true, data: text }))
  e.dispatchEvent(new Event('change', { bubbles: true }))
  await pause(0)
}

/* The same, and leaves the field, which is when one for numbers is read. */
export async function fill(css: string, text: string) {
  const e = (await until(() => all<HTMLInputElement>(css)[0]))!
  e.focus()
  await pause(0)
  e.value = text
  if (!e.matches('[role=spinbutton]')) e.dispatchEvent(new InputEvent('input', { bubbles: true, data: text }))
  e.dispatchEvent(new Event('change', { bubbles: true }))
  e.blur()
  await pause(0)
}

/* Picks an option of a drop-down list. */
export async function choose(id: string, option: string) {
  await click(`.p-select:has(#${id})`)
  await click('[role=option]', option)
  await until(() => !document.querySelector('[role=option]'))
}

export async function shut() {
  await click('.p-dialog-close-button')
  await until(() => !document.querySelector('[role=dialog]'))
}

/* What the program itself has. */
export async function ask<T>(path: string, method = 'GET', body?: unknown): Promise<T> {
  const got = await fetch(base + path, { method, headers: { 'Content-Type': 'application/json', ...(method === 'GET' ? {} : { 'If-Match': '*' }) }, body: body === undefined ? undefined : JSON.stringify(body) }) // prettier-ignore
  const text = await got.text()
  if (!got.ok) expect.fail(`${method} ${path}: ${got.status} ${text.slice(0, 300)}`)
  return (got.headers.get('Content-Type')?.includes('json') ? JSON.parse(text) : text) as T
}

export const focus = (css: string) => until(() => (all(css)[0] ? (all(css)[0]!.focus(), true) : false))

/* Hands files to a field for files. */
export async function hand(...files: File[]) {
  const e = (await until(() => document.querySelector<HTMLInputElement>('input[type=file]')))!
  Object.defineProperty(e, 'files', { value: files, configurable: true })
  e.dispatchEvent(new Event('change', { bubbles: true }))
  await pause(0)
}

/* Waits until what was done is kept. */
export const saved = () => until(() => texts('header [role=status]').includes('saved'))

/* What was changed behind the page's back is asked for anew, as after a reload. */
export async function anew() {
  const app = (document.querySelector('#app') as unknown as { __vue_app__: { _context: { provides: Record<string, { invalidateQueries: () => Promise<void> }> } } }).__vue_app__ // prettier-ignore
  await app._context.provides['VUE_QUERY_CLIENT']!.invalidateQueries()
}
