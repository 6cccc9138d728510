import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [vue()],
  build: { target: 'es2023', assetsInlineLimit: 0, chunkSizeWarningLimit: 900 },
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
