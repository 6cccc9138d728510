import { defineConfig } from 'vite'

/* The ear by itself, for tests that have it listen to files. */
export default defineConfig({
  publicDir: false,
  build: {
    outDir: 'node_modules/.ear',
    target: 'es2023',
    lib: { entry: 'scripts/hear.ts', formats: ['es'], fileName: 'hear' },
    rollupOptions: { external: [/^node:/] },
  },
})
