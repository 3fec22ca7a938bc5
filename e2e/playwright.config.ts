import { defineConfig } from '@playwright/test'
import { launchOptions } from './browser'

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  outputDir: 'results',
  fullyParallel: true,
  workers: 2,
  // A browser starved on a small machine may miss a wait: tried once more, and named in the output.
  retries: 1,
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
