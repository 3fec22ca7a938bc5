import react from '@vitejs/plugin-react'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [react()],
  build: { outDir: '../server/web/dist', emptyOutDir: false, target: 'es2022', assetsInlineLimit: 0 },
  test: { include: ['src/**/*.test.ts'], environment: 'node' },
})
