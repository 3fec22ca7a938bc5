// Step 10: pages that people read, from the Overview and back.
import AxeBuilder from '@axe-core/playwright'
import { expect, open, test } from './jantel'

test('a guide is read, a step ticked off, and its lines opened', async ({ page, demo }) => {
  await open(page, demo, 'overview')
  await page.getByRole('link', { name: 'Your first days at the vault' }).click()
  await expect(page.getByRole('heading', { name: 'Read one thing through' })).toBeVisible()
  const lines = page.locator('figure').first()
  await expect(lines).toContainText('drying must lower the moisture')
  const first = page.getByRole('checkbox').first()
  await expect(first).not.toBeChecked()
  await first.check()
  await expect(page.getByRole('status')).toContainText('Changed Your first days')
  await page.reload()
  await expect(page.getByRole('checkbox').first()).toBeChecked()
  await expect(page.getByRole('checkbox').nth(1)).not.toBeChecked()
  await page.locator('figcaption a').first().click()
  await expect(page).toHaveURL(/\/code\?at=bench%2Fbench%2Fdrying%2Fservice\.py&line=16/)
  await page.goBack()
  await page.getByRole('link', { name: 'models.py' }).click()
  await expect(page).toHaveURL(/\/code\?at=bench%2Fbench%2Fdrying%2Fmodels\.py/)
})

test('a page is begun, written, taken away and brought back', async ({ page, demo }) => {
  await open(page, demo, 'overview')
  await page.getByRole('button', { name: 'a report' }).click()
  await expect(page.getByLabel('text, in Markdown')).toHaveValue(/Cut the shelf picker/)
  await page.getByLabel('title').fill('The first round')
  await page
    .getByLabel('text, in Markdown')
    .fill('Nothing but this.\n\n[the scale](desk/src/components/ShelfPicker.tsx#ShelfPicker)\n')
  await page.keyboard.press('Control+Enter')
  await expect(page.getByRole('heading', { name: 'The first round' })).toBeVisible()
  await expect(page.locator('figure pre')).toContainText('ShelfPicker')
  await page.getByRole('button', { name: 'Take it away' }).click()
  await expect(page.getByText('it was taken away')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('heading', { name: 'The first round' })).toBeVisible()
  await page.getByRole('button', { name: 'Take it away' }).click()
  await page.getByRole('link', { name: 'The pages that there are' }).click()
  await expect(page.getByRole('link', { name: 'The first round' })).toHaveCount(0)
  await expect(page.locator('.pages li')).toHaveCount(4)
})

test('what somebody else wrote meanwhile is not written over', async ({ page, demo, context }) => {
  await open(page, demo, 'overview')
  await page.getByRole('link', { name: 'Deadlines of requests' }).click()
  const other = await context.newPage()
  await other.goto(page.url())
  await page.getByRole('button', { name: 'Change it' }).click()
  await page.getByLabel('title').fill('Mine')
  await other.getByRole('button', { name: 'Change it' }).click()
  await other.getByLabel('title').fill('Theirs')
  await other.getByRole('button', { name: 'Save' }).click()
  await expect(other.getByRole('heading', { name: 'Theirs' })).toBeVisible()
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByRole('alert')).toContainText(/changed/i)
  await expect(page.getByLabel('title')).toHaveValue('Mine')
})

test('a draft of a regrouping says what becomes of it before anything is moved', async ({ page, demo }) => {
  await open(page, demo, 'overview')
  await page.getByRole('link', { name: 'The desk by what it is about' }).click()
  const draft = page.getByRole('region', { name: 'What becomes of it' })
  await expect(draft).toContainText('9 of 9 moves can be made')
  await expect(draft.getByRole('row', { name: /^folders/ })).toContainText('+2')
  await page.getByRole('button', { name: 'Change it' }).click()
  await page.getByLabel('text, in Markdown').fill('git mv desk/src/pages/DryingPage.tsx desk/src/pages/VaultPage.tsx\n')
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(draft).toContainText('a file lies there already')
})

test('pages are clean to axe, light and dark, and nothing is cut off to the side', async ({ page, demo }) => {
  await open(page, demo, 'overview')
  await expect(page.locator('.pages li')).toHaveCount(4)
  const hrefs = await page.locator('.pages li a').evaluateAll((all) => all.map((a) => a.getAttribute('href') ?? ''))
  for (const dark of [false, true]) {
    await page.emulateMedia({ colorScheme: dark ? 'dark' : 'light' })
    for (const href of [...hrefs, `${hrefs[0] ?? ''}?write=1`]) {
      await page.goto(new URL(href, demo.base).href)
      await expect(page.locator('main.page article, main.page form')).toBeVisible()
      const found = await new AxeBuilder({ page }).analyze()
      expect(found.violations.map((v) => `${href} ${v.id}: ${v.nodes[0]?.html ?? ''}`)).toEqual([])
      expect(await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)).toBeLessThanOrEqual(0)
    }
  }
})
