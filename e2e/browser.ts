import type { LaunchOptions } from '@playwright/test'

/** Debian's Chromium, without the services it would call home to. */
export const launchOptions: LaunchOptions = {
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
}
