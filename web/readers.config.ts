import { defineConfig } from 'vite'

/* Readers of other makes, a file each, for the tests that have them read what Undaris writes. */
export default defineConfig({
  publicDir: false,
  build: {
    outDir: 'node_modules/.readers',
    lib: {
      entry: {
        vexml: 'node_modules/@stringsync/vexml/dist/esm/index.js',
        midi: 'node_modules/midi-file/index.js',
      },
      formats: ['es'],
    },
  },
})
