import { defineConfig } from 'vite'

/* The ear by itself, for tests that have it listen to files, and what plays instruments of other sound banks to it. */
export default defineConfig({
  publicDir: false,
  build: {
    outDir: 'node_modules/.ear',
    target: 'es2023',
    lib: {
      entry: {
        hear: 'scripts/hear.ts',
        font: 'scripts/font.ts',
        record: 'scripts/record.ts',
        band: 'scripts/band.ts',
        model: 'scripts/model.ts',
      },
      formats: ['es'],
    },
    rollupOptions: { external: [/^node:/, /^@tensorflow/] },
  },
})
