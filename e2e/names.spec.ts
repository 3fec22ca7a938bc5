// The names: their words, how they are written, their verbs; and what a change may touch, told in the margin.
import { expect, margin, open, test } from './jantel'

test('a word is found, opened, and followed to where it stands', async ({ page, demo }) => {
  await open(page, demo, 'names')
  const grid = page.getByRole('grid', { name: 'Words; arrows move, Enter opens' })
  await expect(grid).toBeFocused()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/word=[a-z]+/)
  await page.getByPlaceholder('part of a word').fill('picker')
  await expect(grid.getByRole('row')).toHaveCount(2)
  await grid.focus()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  await grid.getByRole('link', { name: 'ShelfPicker', exact: true }).first().click()
  await expect(page).toHaveURL(/code\?at=.*ShelfPicker/)
})

test('how names are written and what verbs promise are told in sentences', async ({ page, demo }) => {
  await open(page, demo, 'names')
  await page.getByRole('button', { name: 'how they are written' }).click()
  await expect(page.getByText(/files in TypeScript, written in 2 ways/)).toBeVisible()
  await expect(page.getByRole('link', { name: 'use_labels.ts' })).toBeVisible()
  await page.getByRole('button', { name: 'verbs and promises' }).click()
  await expect(page.getByRole('heading', { name: 'Several verbs for one action' })).toBeVisible()
  await expect(page.getByText('drying: get, fetch, find')).toBeVisible()
  await page.getByRole('link', { name: /smells of names/ }).click()
  await expect(page.getByRole('navigation', { name: 'Groups of smells' })).toBeVisible()
  await expect(page).toHaveURL(/group=facet&key=Names/)
})

test('a change is weighed in the margin: who is affected, which tests, what comes along', async ({ page, demo }) => {
  await open(page, demo, 'code', 'counter/src/logic/requests.ts')
  await margin(page).getByText('What a change here may touch').click()
  await expect(
    margin(page)
      .getByText(/directly/)
      .first(),
  ).toBeVisible()
  await margin(page)
    .getByText(/Taken elsewhere/)
    .click()
  await expect(
    margin(page)
      .getByText(/fewer without/)
      .first(),
  ).toBeVisible()
  await open(page, demo, 'layout', 'shared/src/types')
  await margin(page).getByText('What a change here may touch').click()
  await expect(margin(page).getByText(/through types alone/)).toBeVisible()
})

test('a text that a page asks for is found in no catalogue, one that a language lacks is opened, settings are told', async ({
  page,
  demo,
}) => {
  await open(page, demo, 'names', '.', '&side=texts')
  const grid = page.getByRole('grid', { name: /Names; arrows/ })
  await expect(page.getByText('10 texts in 2 languages')).toBeVisible()
  await page.getByRole('button', { name: /^in no catalogue 1$/ }).click()
  await expect(grid.getByRole('row')).toHaveCount(2)
  await expect(grid.getByText('heading.letters')).toBeVisible()
  await page.getByRole('button', { name: /^in no catalogue 1$/ }).click()
  await page.getByRole('button', { name: /^missing in a language 3$/ }).click()
  await expect(page).toHaveURL(/wrong=missing/)
  await expect(grid.getByRole('row')).toHaveCount(4)
  await grid.focus()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Nothing has been entered yet.').last()).toBeVisible()
  await expect(grid.getByRole('link', { name: /lang\/en\.php:/ })).toBeVisible()
  await page.getByRole('button', { name: /^settings \d+$/ }).click()
  await expect(grid.getByRole('row').filter({ hasText: 'BENCH_HOST' })).toContainText('must be set')
  await expect(grid.getByRole('row').filter({ hasText: 'SCALE_LINE' })).toContainText('nothing found that reads it')
  await grid
    .getByRole('link', { name: /app\.py:/ })
    .first()
    .click()
  await expect(page.locator('.pickedline')).toHaveCount(1)
})

test('a word is explained, another not to be said: it shows as a smell, and all of it is taken back', async ({ page, demo }) => {
  await open(page, demo, 'names')
  await page.getByRole('button', { name: 'glossary' }).click()
  await expect(page).toHaveURL(/side=glossary/)
  // What the charter explains stands there already, and is changed in the charter.
  await expect(page.getByRole('row', { name: /^trial seed put to germinate/ })).toBeVisible()
  await page.getByLabel('The word').fill('Packet')
  await page.getByLabel('stands for').fill('seed as it came in')
  await page.getByLabel('is not called').fill('accession')
  await page.keyboard.press('Enter')
  const row = page.getByRole('row', { name: /packet seed as it came in accession/ })
  await expect(row).toBeVisible()
  await open(page, demo, 'smells', '.', 'words=glossary')
  await expect(
    page
      .locator('#view')
      .getByText(/accession stands in .* names, where the glossary says packet/)
      .first(),
  ).toBeVisible()
  await open(page, demo, 'names', '.', 'side=glossary')
  await row.getByRole('button', { name: 'Take packet out of the glossary' }).click()
  await expect(row).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(row).toBeVisible()
})
