import { chromium } from '@playwright/test'
const [, , url, out, scheme = 'light', w = '1280', h = '800'] = process.argv
const [start, ...paths] = url.split(' ')
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] })
const c = await b.newContext({ viewport: { width: +w, height: +h }, colorScheme: scheme })
const p = await c.newPage()
p.on('console', (m) => m.type() === 'error' && console.log('ERR', m.text()))
p.on('pageerror', (e) => console.log('PAGEERR', e.message))
await p.goto(start)
await p.waitForTimeout(900)
let i = 0
for (const x of paths) {
  await p.goto(new URL(x, start).href)
  await p.waitForTimeout(900)
  await p.waitForTimeout(2500)
  await p.screenshot({ path: out.replace('.png', (paths.length > 1 ? '-' + i++ : '') + '.png') })
}
await b.close()
