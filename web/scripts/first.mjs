/* What a browser fetches of scripts before the first place is drawn stays small. The bounds are a little above what was reached. */
import { readFileSync, statSync } from 'node:fs'

const most = { files: 2, gzip: 164_000, brotli: 140_000 }
const dist = new URL('../dist/', import.meta.url)
const page = readFileSync(new URL('index.html', dist), 'utf8')
const scripts = [...page.matchAll(/="\/(assets\/[^"]+\.js)"/g)].map(([, path]) => path)
const sum = (ending) => scripts.reduce((n, path) => n + statSync(new URL(path + ending, dist)).size, 0)
const now = { files: scripts.length, gzip: sum('.gz'), brotli: sum('.br') }
console.log('scripts before the first drawing:', now)
for (const [what, n] of Object.entries(most))
  if (now[what] > n || now[what] < n / 2) {
    console.error(`${what}: ${now[what]} is not within ${n / 2} to ${n}`)
    process.exit(1)
  }
