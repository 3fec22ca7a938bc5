// Looking before reading: the section, and what it asks the reader.
import AxeBuilder from '@axe-core/playwright'
import { expect, open, test } from './jantel'

test('the section shows the parts, opens what it shows, and is a list as well', async ({ page, demo }) => {
  await open(page, demo, 'overview')
  const section = page.locator('figure.section')
  await expect(section.getByRole('link', { name: /^counter: [\d,]+ own lines$/ })).toBeVisible()
  await expect(section.getByRole('link', { name: /^\d+ routes, counter$/ })).toBeVisible()
  await expect(section.getByRole('link', { name: /PostgreSQL/ })).toBeVisible()
  // What the charter forbids is drawn apart from what is only needed.
  await expect(section.locator('.tie.breach title').first()).toHaveText(/needs .* against the charter/)
  // The same as a list: as many rows as there are blocks.
  const blocks = await section.locator('rect.block').count()
  await section.getByRole('button', { name: 'as a list' }).click()
  await expect(section.getByRole('row')).toHaveCount(blocks + 1)
  expect((await new AxeBuilder({ page }).include('figure.section').analyze()).violations.map((v) => v.id)).toEqual([])
  await section.getByRole('button', { name: 'as a drawing' }).click()
  // By keyboard: a block takes the focus and leads to its folder.
  const block = section.getByRole('link', { name: /^desk\/src\/components: / })
  await block.focus()
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/\/layout\?at=desk%2Fsrc%2Fcomponents/)
})

test('no name and no line of the section leaves its picture', async ({ page, demo }) => {
  await open(page, demo, 'overview')
  const out = await page.locator('figure.section svg').evaluate((svg) => {
    const all = svg.getBoundingClientRect()
    return [...svg.querySelectorAll('text, rect.block, .tie path')]
      .map((e) => ({ what: e.textContent || e.tagName, r: e.getBoundingClientRect() }))
      .filter(({ r }) => r.width > 0 && (r.left < all.left - 1 || r.right > all.right + 1 || r.bottom > all.bottom + 1))
      .map(({ what }) => what)
  })
  expect(out).toEqual([])
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(1280)
})

test('a folder that others may have written is left out in one step, and taken back', async ({ page, jantel }) => {
  const code = 'export function weigh(lot) {\n  return lot.grams\n}\n'.repeat(4)
  const at = jantel.tree('vault', {
    LICENSE: 'ours\n',
    'src/lots.js': `import { sort } from '../parts/sorter/sort.js'\n${code}`,
    'src/shelf.js': code,
    'src/box.js': code,
    'src/grower.js': code,
    'parts/sorter/LICENSE': 'theirs\n',
    'parts/sorter/sort.js': code,
  })
  await page
    .getByLabel(/folder|path/i)
    .first()
    .fill(at)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('link', { name: 'vault' }).first()).toBeVisible()
  await open(page, jantel, 'overview')
  const asked = page.getByRole('region', { name: 'Did others write this?' })
  await expect(asked).toContainText('parts/sorter a licence of its own; it needs hardly anything outside: 12 lines')
  await asked.getByRole('checkbox').uncheck()
  await expect(asked.getByRole('button', { name: /Leave 0 folders/ })).toBeDisabled()
  await asked.getByRole('checkbox').check()
  await asked.getByRole('button', { name: 'Leave 1 folder out of the judgement' }).click()
  await expect(page.getByRole('status').filter({ hasText: '1 folder left out of the judgement.' })).toBeVisible()
  await expect(page.getByText(/^Not judged: 3 files|^Not judged: 2 files|^Not judged: one file/).first()).toBeVisible()
  await page.getByRole('button', { name: 'take it back' }).click()
  await expect(asked).toBeVisible()
})

test('the first screenful leads on, and a smell is recorded from it', async ({ page, demo }) => {
  await open(page, demo, 'overview')
  await expect(page.locator('.said-so').first()).toContainText('Five parts in one repository')
  expect(await page.locator('section > .said-so, section > .say').count()).toBeLessThanOrEqual(12)
  await expect(page.locator('p.next')).toContainText(/Run it with|Read next/)
  await expect(page.locator('p.next a').last()).toHaveText('Then follow one request')
  await page.locator('p.next a').nth(-2).click()
  await expect(page).toHaveURL(/\/code\?at=/)
  await page.goBack()
  const worst = page.locator('ol.worst > li').first()
  await worst.getByRole('button', { name: 'record it' }).click()
  await expect(worst).toContainText('recorded')
  // The event may be here before the answer; what can be taken back is what was answered.
  await expect(page.getByText(/^Recorded: /)).toBeVisible()
  await page.keyboard.press('z')
  await expect(worst.getByRole('button', { name: 'record it' })).toBeVisible()
})
