import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [vue()],
  build: { target: 'es2023', assetsInlineLimit: 0, chunkSizeWarningLimit: 900 },
  worker: { format: 'es' },
  // A busy machine is slow, which is no fault of what is tested.
  test: { testTimeout: 60_000 },
  server: { host: '127.0.0.1', proxy: { '/api': 'http://127.0.0.1:4760' } },
})
