// The pictures of the main views, as they stand in docs/screenshots.
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { views } from '../web/src/shell/views'
import { open, still, test } from './jantel'

const folder = join(dirname(fileURLToPath(import.meta.url)), '..', 'docs', 'screenshots')

/** What each view is pictured with; without a line here it shows the whole codebase. */
const at: Record<string, { at?: string; more?: string }> = {
  layout: { more: 'pick=desk%2Fsrc%2Fcomponents' },
  code: { at: 'desk/src/components/ShelfPicker.tsx', more: 'line=53&end=57' },
  weave: { at: 'bench' },
  dependencies: { at: 'counter/src' },
  findings: { more: 'open=1' },
  parts: { more: 'only=duties&part=desk%2Fsrc%2Fcomponents%2FShelfPicker.tsx+ShelfPicker' },
  names: { more: 'side=verbs' },
  smells: { more: 'key=near-twin' },
}

const pictures = [
  ...views.map((v) => ({ name: v.id, view: v.id, at: '', more: '', dark: false, ...at[v.id] })),
  { name: 'layout-dark', view: 'layout', at: 'desk/src', more: '', dark: true },
  { name: 'anatomy', view: 'weave', at: '', more: 'mode=anatomy&feature=drying', dark: false },
  {
    name: 'way',
    view: 'journeys',
    at: '',
    more: `path=accessions&way=${encodeURIComponent('POST /api/accessions/add counter/src/routes/accessions.ts:8')}`,
    dark: false,
  },
  {
    name: 'resources',
    view: 'journeys',
    at: '',
    more: `list=resources&thing=${encodeURIComponent('counter /api/requests')}`,
    dark: false,
  },
  {
    name: 'states',
    view: 'journeys',
    at: '',
    more: `list=states&holder=${encodeURIComponent('desk/src/store/printerQueue.ts:2')}`,
    dark: false,
  },
  { name: 'types', view: 'parts', at: '', more: 'side=shapes&shape=box', dark: false },
  { name: 'texts', view: 'names', at: '', more: 'side=texts', dark: false },
  { name: 'beside', view: 'layout', at: 'counter', more: 'with=desk', dark: false },
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
