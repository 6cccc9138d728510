/* After the build: what is text leaves packed alone, as gzip, and what comes before the first drawing as brotli too (both
   of everything would be a twentieth of the program); and of a font the format that every browser reads. The program serves them as they are (server/site.go). index.html stays, since it tells that there is a front end. */
import { readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { basename, join } from 'node:path'
import { brotliCompressSync, constants, gzipSync } from 'node:zlib'

const dist = join(import.meta.dirname, '../dist')
const text = /\.(m?js|css|html|svg|json|txt|webmanifest|wasm|bin)$/
const olderFonts = /\.(eot|ttf|woff|svg)$/

const files = (dir) => readdirSync(dir).flatMap((name) => (statSync(join(dir, name)).isDirectory() ? files(join(dir, name)) : [join(dir, name)])) // prettier-ignore
const all = files(dist)
const fonts = new Set(all.filter((f) => f.endsWith('.woff2')).map((f) => f.replace(/-[^-]*\.woff2$/, '')))
const page = readFileSync(join(dist, 'index.html'), 'utf8')
const isFirst = (file) => file.endsWith('.html') || page.includes(basename(file))
const isOlder = (f) => olderFonts.test(f) && fonts.has(f.replace(/-[^-]*$/, ''))

for (const file of all) {
  if (isOlder(file)) {
    rmSync(file)
    continue
  }
  if (!text.test(file)) continue
  let data = readFileSync(file)
  if (file.endsWith('.css')) {
    // A rule of a font names its files one after the other; those that are gone are no longer named.
    const css = data.toString().replace(/src:[^;}]*/g, (src) => {
      const [, ...urls] = /^src:(.*)$/s
        .exec(src)[1]
        .split(/,(?=url\()/)
        .reduce((list, u) => [...list, u], [null])
      const left = urls.filter((u) => !/\.(eot|ttf|woff|svg)([?#][^"')]*)?["']?\)/.test(u))
      return left.length ? `src:${left.join(',')}` : urls.length ? 'src:local("")' : src
    })
    data = Buffer.from(css.replace(/src:local\(""\);/g, ''))
  }
  if (isFirst(file))
    writeFileSync(
      `${file}.br`,
      brotliCompressSync(data, { params: { [constants.BROTLI_PARAM_QUALITY]: 11, [constants.BROTLI_PARAM_SIZE_HINT]: data.length } }), // prettier-ignore
    )
  writeFileSync(`${file}.gz`, gzipSync(data, { level: 9 }))
  if (!file.endsWith('index.html')) rmSync(file)
}
