// The pictures of the main views, as they stand in docs/screenshots.
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { open, still, test } from './jantel'

const folder = join(dirname(fileURLToPath(import.meta.url)), '..', 'docs', 'screenshots')

const pictures = [
  { name: 'overview', view: 'overview', at: '', more: '' },
  { name: 'layout', view: 'layout', at: '', more: 'pick=desk%2Fsrc%2Fcomponents' },
  { name: 'layout-dark', view: 'layout', at: 'desk/src', more: '', dark: true },
  { name: 'code', view: 'code', at: 'desk/src/components/ShelfPicker.tsx', more: 'line=53&end=57' },
  { name: 'weave', view: 'weave', at: 'bench', more: '' },
  { name: 'dependencies', view: 'dependencies', at: 'counter/src', more: '' },
  { name: 'journeys', view: 'journeys', at: '', more: '' },
  { name: 'findings', view: 'findings', at: '', more: 'open=1' },
]

for (const p of pictures)
  test(`picture of ${p.name}`, async ({ page, demo }) => {
    if (p.dark) await page.emulateMedia({ colorScheme: 'dark' })
    await open(page, demo, p.view, p.at, p.more)
    await page.waitForLoadState('networkidle')
    await still(page)
    await page.screenshot({ path: join(folder, `${p.name}.png`), animations: 'disabled' })
  })

test('picture of search', async ({ page, demo }) => {
  await open(page, demo, 'layout')
  await page.keyboard.press('/')
  await page.getByRole('textbox', { name: 'Search' }).fill('allowance')
  await page
    .getByRole('dialog')
    .getByText(/lines? in \d+ files?/)
    .waitFor()
  await still(page)
  await page.screenshot({ path: join(folder, 'search.png'), animations: 'disabled' })
})
