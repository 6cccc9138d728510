import { readdirSync, readFileSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { components } from './preset'

const here = join(import.meta.dirname, '..')
const files = (dir: string): string[] => readdirSync(dir).flatMap((name) => (statSync(join(dir, name)).isDirectory() ? files(join(dir, name)) : [join(dir, name)])) // prettier-ignore
const installed = join(here, '../node_modules')
const isFile = (path: string) => statSync(path, { throwIfNoEntry: false })?.isFile()

/* What a file takes from the library of components. */
const taken = (path: string, from: RegExp) => [...readFileSync(path, 'utf8').matchAll(from)].map((m) => m[1]!)

/* The library's parts that the page uses, and those that they use. */
function used() {
  const found = new Set<string>()
  const walk = (name: string) => {
    const path = join(installed, 'primevue', name, 'index.mjs')
    if (found.has(name) || !isFile(path)) return
    found.add(name)
    taken(path, /from ['"](?:@?primevue)\/([a-z]+)['"]/g).forEach(walk)
  }
  for (const file of files(here).filter((f) => /\.(ts|vue)$/.test(f) && !f.includes('.test.')))
    taken(file, /import(?!\(| type)[^\n]* from 'primevue\/([a-z]+)'/g)
      .concat(taken(file, /import\('primevue\/([a-z]+)'\)/g))
      .forEach(walk)
  return [...found]
}

describe('the look of components', () => {
  it('has a part for each that is used, and for none that is not', () => {
    const styled = used().filter((name) => isFile(join(installed, '@primeuix/themes/dist/aura', name, 'index.mjs')))
    expect(styled.length).toBeGreaterThan(12)
    expect(Object.keys(components).sort()).toEqual(styled.sort())
  })
})
