// The desk: smells in groups, worked through many at once, each step taken back; rules that rest.
import { expect, margin, open, test } from './jantel'

const list = 'Smells; arrows move, Space marks, Enter opens'

test('smells are marked, dismissed together with a reason, and taken back, by keyboard', async ({ page, demo }) => {
  await open(page, demo, 'smells', '.', '&key=file-nobody-reaches&each=1')
  const grid = page.getByRole('grid', { name: list })
  await expect(grid).toBeFocused()
  await expect(page.getByText('Is there code that nothing needs?')).toBeVisible()
  await expect.poll(() => grid.getByRole('row').count()).toBeGreaterThan(3)
  const rows = await grid.getByRole('row').count()
  for (let i = 0; i < 3; i++) {
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press(' ')
  }
  await expect(page.getByText('3 smells marked')).toBeVisible()
  await page.getByRole('button', { name: 'Dismiss them' }).click()
  await page.keyboard.type('the old pages are kept until spring')
  await page.keyboard.press('Enter')
  await expect(grid.getByRole('row')).toHaveCount(rows - 3)
  await expect(page.getByText('3 smells of it dismissed here, and why')).toBeVisible()
  await expect(page.getByText(/3 smells of this rule were dismissed/)).toBeVisible()
  await page.getByRole('button', { name: 'Let it rest' }).click()
  await expect(page.getByText(/The rule rests here: the old pages are kept until spring/)).toBeVisible()
  await expect(grid.getByRole('row')).toHaveCount(1)
  await page.getByRole('button', { name: 'Let it count again' }).click()
  await expect(grid.getByRole('row')).toHaveCount(rows - 3)
  await grid.focus()
  await page.keyboard.press('z') // that it counts again
  await expect(page.getByText(/The rule rests here/)).toBeVisible()
  await grid.focus()
  await page.keyboard.press('z') // that it rests
  await expect(page.getByText(/The rule rests here/)).toHaveCount(0)
  await grid.focus()
  await page.keyboard.press('z') // the three dismissals
  await expect(grid.getByRole('row')).toHaveCount(rows)
})

test('many smells become findings in one step, and are grouped as one asks', async ({ page, demo }) => {
  await open(page, demo, 'smells', 'archive', '&group=folder')
  const grid = page.getByRole('grid', { name: list })
  await expect(grid).toBeFocused()
  const groups = page.getByRole('navigation', { name: 'Groups of smells' })
  await groups.getByRole('button', { name: /archive\/src/ }).click()
  await expect(page).toHaveURL(/key=archive%2Fsrc/)
  await grid.focus()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press(' ')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press(' ')
  await page.getByRole('button', { name: 'Make findings of them' }).click()
  await expect(page.getByText('Recorded: 2 findings')).toBeVisible()
  await expect(grid.getByText('recorded')).toHaveCount(2)
  await grid.focus()
  await page.keyboard.press('z')
  await expect(page.getByText('Taken back: 2 findings')).toBeVisible()
  await expect(grid.getByText('recorded')).toHaveCount(0)
  await grid.focus()
  await page.keyboard.press('Enter')
  await expect(grid.getByText('What helps')).toBeVisible()
  await expect(page).toHaveURL(/smell=/)
  await page.getByPlaceholder('words of a smell or a path').fill('nothing has these words')
  await expect(page.getByText('No smell has these words.')).toBeVisible()
})

test('how the score came about is told when it is asked for', async ({ page, demo }) => {
  await open(page, demo, 'overview')
  const strip = margin(page)
  await strip.getByRole('button', { name: 'How it came about' }).click()
  await expect(strip.getByText(/Looking at past revisions|by today’s rules/)).toBeVisible()
  await expect(strip.getByText(/^From \d+ in .* to \d+ in .*, by today’s rules/)).toBeVisible({ timeout: 90_000 })
  expect(await strip.locator('.pastscore circle').count()).toBeGreaterThan(5)
  await page.reload()
  await expect(strip.getByText(/by today’s rules/)).toBeVisible()
})
