import { defineConfig } from '@playwright/test'
import { launchOptions } from './browser'

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  outputDir: 'results',
  fullyParallel: true,
  workers: 2,
  retries: 0,
  timeout: 150_000,
  expect: { timeout: 15_000 },
  reporter: 'list',
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions,
    contextOptions: { reducedMotion: 'reduce' },
    trace: 'off',
  },
})
