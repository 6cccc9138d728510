import { defineConfig } from 'vite'

/* A sheet reader of another make, in one file, for the tests that have it read what Undaris writes. */
export default defineConfig({
  publicDir: false,
  build: {
    outDir: 'node_modules/.readers',
    lib: { entry: 'node_modules/@stringsync/vexml/dist/esm/index.js', formats: ['es'], fileName: 'vexml' },
  },
})
