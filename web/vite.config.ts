import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import type { ModuleInfo } from 'rolldown'
import type { Plugin } from 'vite'
import { defineConfig } from 'vitest/config'

/* All that the first place needs is one file, parts of the library that come after it another; the rest is split by where it is needed. */
let first: Set<string> | undefined
function inFirst(id: string, chunks: { getModuleInfo(id: string): ModuleInfo | null }) {
  if (!first) {
    first = new Set([entry])
    for (const known of first) for (const next of chunks.getModuleInfo(known)?.importedIds ?? []) first.add(next)
  }
  if (first.has(id)) return 'first'
  return /node_modules\/(primevue|@primevue|@primeuix)\//.test(id) ? 'parts' : null
}
const entry = fileURLToPath(new URL('src/main.ts', import.meta.url))

/* The music font is given as text in a script; as a file of its own it is a quarter smaller and packed but once. */
const musicFont: Plugin = {
  name: 'music-font',
  apply: 'build',
  transform(code, id) {
    const font = /vexflow\/.*\/fonts\/bravura\.js$/.test(id) && /data:font\/woff2[^,]*;base64,([^']+)'/.exec(code)
    if (!font) return null
    const file = this.emitFile({ type: 'asset', name: 'bravura.woff2', source: Buffer.from(font[1]!, 'base64') })
    return { code: `export const Bravura = import.meta.ROLLUP_FILE_URL_${file}`, map: null }
  },
}

export default defineConfig({
  plugins: [vue(), musicFont],
  build: {
    target: 'es2023',
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 900,
    rolldownOptions: { output: { codeSplitting: { groups: [{ name: inFirst }] } } },
  },
  worker: { format: 'es' },
  // A busy machine is slow, which is no fault of what is tested.
  test: {
    testTimeout: 60_000,
    maxWorkers: 2,
    projects: [
      { extends: true, test: { name: 'plain', include: ['src/**/*.test.ts'], exclude: ['src/**/*.page.test.ts'] } },
      // The whole page in a document, answered by the real program.
      {
        extends: true,
        test: {
          name: 'page',
          include: ['src/**/*.page.test.ts'],
          environment: './testing/page.ts',
          deps: { optimizer: { client: { enabled: true } } },
        },
      },
    ],
  },
  server: { host: '127.0.0.1', proxy: { '/api': 'http://127.0.0.1:4760' } },
})
