import { defineConfig } from '@playwright/test'
import base from './playwright.config'

/** Takes the pictures of docs/screenshots from the demo. */
export default defineConfig({ ...base, testMatch: 'screenshots.ts', workers: 1 })
