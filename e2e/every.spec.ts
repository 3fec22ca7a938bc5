// Every control of every view, made from the list of views: nothing dead, nothing that throws, nothing that axe finds.
import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { views } from '../web/src/shell/views'
import { expect, open, shown, test } from './jantel'

/** What removes or leaves: pressed by tests of their own. */
const elsewhere = /^(Cancel|Delete|print|Take it away|Remove|Survey)/

/** The buttons of a view that are in sight, each by its place and words. */
async function controls(page: Page): Promise<string[]> {
  return page.locator('#view').evaluate((view) => {
    const seen = new Set<string>()
    return [...view.querySelectorAll<HTMLElement>('button, summary, [role=tab], select, input[type=checkbox]')]
      .filter((e) => e.offsetParent && !(e as HTMLButtonElement).disabled)
      .map((e) => `${e.tagName} ${e.getAttribute('aria-label') ?? e.textContent?.trim().slice(0, 40) ?? ''}`)
      .filter((k) => !seen.has(k) && seen.add(k))
  })
}

/** Presses the control with those words; it reports whether it was there. */
async function press(page: Page, key: string): Promise<boolean> {
  return page.locator('#view').evaluate((view, key) => {
    const e = [...view.querySelectorAll<HTMLElement>('button, summary, [role=tab], select, input[type=checkbox]')].find(
      (x) => x.offsetParent && `${x.tagName} ${x.getAttribute('aria-label') ?? x.textContent?.trim().slice(0, 40) ?? ''}` === key,
    )
    if (!e) return false
    if (e instanceof HTMLSelectElement) {
      e.selectedIndex = Math.min(1, e.options.length - 1)
      e.dispatchEvent(new Event('change', { bubbles: true }))
    } else e.click()
    return true
  }, key)
}

/** Presses every control of a view at its address: each leaves something in sight, and none throws. */
async function pressAll(page: Page, home: string, most: number): Promise<void> {
  const broken: string[] = []
  const failed = (e: Error) => broken.push(e.message)
  page.on('pageerror', failed)
  page.on('console', (m) => m.type() === 'error' && !m.text().includes('Failed to load resource') && broken.push(m.text()))
  await shown(page)
  // Whatever takes the focus when its view opens has it.
  await expect.poll(() => page.evaluate(() => document.activeElement !== document.body)).toBe(true)
  const all = (await controls(page)).filter((k) => !elsewhere.test(k.replace(/^\S+ /, '')))
  expect(all.length, 'a view has something to press').toBeGreaterThan(0)
  for (const key of all.slice(0, most)) {
    await press(page, key)
    await shown(page, key)
    expect(broken, `after ${key}`).toEqual([])
    if (page.url() !== home) await page.goto(home)
  }
  page.off('pageerror', failed)
}

/** Looks at a view in one theme: axe finds nothing, and nothing is cut off to the side. */
async function lookAt(page: Page, home: string, theme: 'light' | 'dark'): Promise<void> {
  await page.emulateMedia({ colorScheme: theme })
  await page.goto(home)
  await shown(page)
  await page.evaluate(() => Promise.all(document.getAnimations().map((a) => a.finished)))
  const found = await new AxeBuilder({ page }).exclude('.drawing svg').exclude('.section svg').analyze()
  expect(
    found.violations.map((x) => `${x.id}: ${x.nodes.map((n) => n.html.slice(0, 120)).join(' | ')}`),
    `${home} ${theme}`,
  ).toEqual([])
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true)
}

for (const v of views) {
  test(`every control of ${v.title} does something, and nothing throws`, async ({ page, demo }) => {
    await open(page, demo, v.id, v.says.codebase ? 'counter/src' : 'counter/src/logic/growers.ts')
    const home = page.url()
    await pressAll(page, home, 45)
    for (const theme of ['light', 'dark'] as const) await lookAt(page, home, theme)
  })
}

/** A tree of 10,000 files: twenty parts with twenty-five features each, in layers that mostly keep. */
function tenThousand(): Record<string, string> {
  const files: Record<string, string> = { 'README.md': '# Vaults\n\nVaults keeps the seed of twenty seed banks.\n' }
  const layers = ['pages', 'handlers', 'logic', 'data']
  for (let part = 0; part < 20; part++) {
    files[`part${part}/package.json`] = `{ "name": "part${part}" }`
    for (let feature = 0; feature < 25; feature++)
      for (const [depth, layer] of layers.entries())
        for (let n = 0; n < 5; n++) {
          const below = layers[depth + 1]
          files[`part${part}/src/${layer}/feature${feature}/piece${n}.ts`] =
            (below ? `import { give } from '../../${below}/feature${feature}/piece${n}'\n` : '') +
            (n === 3 && part > 0
              ? `import { give as other } from '../../../../part${part - 1}/src/${layer}/feature${feature}/piece0'\n`
              : '') +
            `export function ${below ? 'take' : 'give'}(lot: string) {\n  return lot + '${layer}'\n}\n` +
            (below ? `export { give }\n` : '')
        }
  }
  return files
}

test('every control of every view acts on ten thousand files', async ({ page, jantel }) => {
  test.setTimeout(600_000)
  const root = jantel.tree('vaults', tenThousand())
  await page.request.post(`${jantel.base}/api/codebases`, { data: { path: root }, headers: { Origin: jantel.base } })
  await expect
    .poll(async () => ((await (await page.request.get(`${jantel.base}/api/codebases/1`)).json()) as { latest: number }).latest, {
      timeout: 120_000,
    })
    .toBeGreaterThan(0)
  for (const v of views) {
    const at = v.says.codebase ? '' : 'part3/src/logic/feature4/piece3.ts'
    await open(page, jantel, v.id, at)
    const home = page.url()
    await pressAll(page, home, 25)
    await lookAt(page, home, 'dark')
  }
})

test('one remark is one write, and no page fetches what it can be told', async ({ page, demo, browser }) => {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const other = await context.newPage()
  await other.goto(demo.url)
  await expect(other.getByRole('heading', { name: 'Jantel' })).toBeVisible()
  await open(page, demo, 'layout', 'bench')
  await open(other, demo, 'overview')
  const asked = { here: [] as string[], there: [] as string[] }
  const count = (p: Page, list: string[]) =>
    p.on(
      'request',
      (r) => new URL(r.url()).pathname.startsWith('/api/') && list.push(`${r.method()} ${new URL(r.url()).pathname}`),
    )
  await expect(page.getByRole('treegrid')).toBeFocused()
  await expect(other.locator('figure.section svg')).toBeVisible()
  await expect(other.getByRole('heading', { name: 'Brief' })).toBeVisible()
  await expect(other.locator('.marginscroll h2')).toBeVisible()
  count(page, asked.here)
  count(other, asked.there)
  await page.keyboard.press('n')
  await page.keyboard.type('+ one thing at a time')
  await page.keyboard.press('Enter')
  await expect(page.locator('.margin').getByRole('button', { name: 'one thing at a time' })).toBeVisible()
  // The margin of the whole codebase, in the other browser, has it as well.
  await expect(other.locator('.margin h3').filter({ hasText: 'Findings here' })).toContainText('15')
  expect(asked.here.filter((r) => !r.startsWith('GET'))).toHaveLength(1)
  expect(asked.here.filter((r) => r.startsWith('GET')).length, asked.here.join()).toBeLessThanOrEqual(2)
  expect(asked.there.length, asked.there.join()).toBeLessThanOrEqual(2)
  await context.close()
})

test('a drawing goes out as a picture', async ({ page, demo }) => {
  await open(page, demo, 'dependencies')
  const wait = page.waitForEvent('download')
  await page.getByRole('button', { name: 'PNG' }).click()
  expect((await wait).suggestedFilename()).toBe('drawing.png')
})
