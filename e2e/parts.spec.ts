// The parts: what each does and who uses it, one opened, and what was noticed recorded from there.
import { expect, margin, open, test } from './jantel'

test('a part with several duties is found, opened and remarked on, by keyboard', async ({ page, demo }) => {
  await open(page, demo, 'parts')
  const grid = page.getByRole('grid', { name: 'Parts; arrows move, Enter opens' })
  await expect(grid).toBeFocused()
  await page.getByRole('button', { name: /several duties/ }).click()
  await expect(grid.getByRole('row')).toHaveCount(2)
  await grid.focus()
  await page.keyboard.press('ArrowDown')
  await expect(page).toHaveURL(/pick=desk%2Fsrc%2Fcomponents%2FShelfPicker.tsx/)
  await page.keyboard.press('Enter')
  const part = page.getByRole('group', { name: 'The part ShelfPicker' })
  await expect(part.getByText('export function ShelfPicker({ boxes, onPick }: Props) {')).toBeVisible()
  await expect(part).toContainText('asks over HTTP line 48')
  await expect(part.getByRole('heading', { name: /^Used by/ })).toBeVisible()
  await grid.focus()
  await page.keyboard.press('n')
  await page.keyboard.type('! weigh apart from drawing')
  await page.keyboard.press('Enter')
  await expect(margin(page).getByRole('button', { name: 'weigh apart from drawing' })).toBeVisible()
  await part.getByRole('link', { name: 'line 48' }).click()
  await expect(page).toHaveURL(/code\?.*line=48/)
})

test('parts are sorted and narrowed, and the address keeps it', async ({ page, demo }) => {
  await open(page, demo, 'parts', 'bench')
  const grid = page.getByRole('grid', { name: 'Parts; arrows move, Enter opens' })
  await expect(grid).toBeFocused()
  await grid.getByRole('button', { name: 'users' }).click()
  await expect(page).toHaveURL(/sort=users\+down/)
  await page.getByRole('button', { name: /reached by no test/ }).click()
  await expect(page).toHaveURL(/only=untested/)
  await page.getByLabel('Kind of part').selectOption('class')
  await expect(page).toHaveURL(/kind=class/)
  await page.reload()
  await expect(page.getByRole('button', { name: /reached by no test/ })).toHaveAttribute('aria-pressed', 'true')
  await page.getByPlaceholder('words of a name or a path').fill('nothing has these words')
  await expect(page.getByText('No part fits this filter.')).toBeVisible()
})

test('types about one thing are laid side by side, what drifted apart first, from the list and from the code', async ({
  page,
  demo,
}) => {
  await open(page, demo, 'parts')
  await page.getByRole('tab', { name: 'Types about one thing' }).click()
  const grid = page.getByRole('grid', { name: /Things/ })
  await expect(grid.getByRole('row').filter({ hasText: /^accession/ })).toBeVisible()
  await grid
    .getByRole('row')
    .filter({ hasText: /^box/ })
    .click({ position: { x: 20, y: 10 } }) // beside its links
  await page.keyboard.press('Enter')
  const table = page.getByRole('region', { name: /^Fields of/ })
  await expect(table.getByRole('row').filter({ hasText: 'slot' })).toContainText('missing')
  await expect(page).toHaveURL(/shape=box/)
  await table.getByRole('link', { name: 'number' }).last().click()
  await expect(page).toHaveURL(/types%2Fall|types\/all/)
  await page.getByText('Its fields beside others').click()
  await expect(page.getByRole('region', { name: /^Fields of/ })).toBeVisible()
})
