// Looking: every figure leads on, every view can be used without a mouse or eyes, and large trees stay quick.
import AxeBuilder from '@axe-core/playwright'
import { expect, margin, open, still, test } from './jantel'

const views = [
  ['overview', ''],
  ['layout', ''],
  ['layout', 'desk/src/components'],
  ['code', 'desk/src/components/ShelfPicker.tsx'],
  ['journeys', ''],
  ['findings', ''],
] as const

for (const scheme of ['light', 'dark'] as const)
  test(`every view passes the checks for accessibility, ${scheme}`, async ({ page, demo }) => {
    await page.emulateMedia({ colorScheme: scheme })
    await still(page)
    const home = await new AxeBuilder({ page }).analyze()
    expect(home.violations.map((v) => `${v.id}: ${v.nodes[0]?.html}`)).toEqual([])
    for (const [view, at] of views) {
      await open(page, demo, view, at)
      await expect(page.locator('#view .empty, #view h1, #view .codebody').first()).toBeVisible()
      await still(page)
      const found = await new AxeBuilder({ page }).analyze()
      expect(
        found.violations.map((v) => `${view}: ${v.id}: ${v.nodes[0]?.html}`),
        view,
      ).toEqual([])
    }
    await page.keyboard.press('?')
    await expect(page.getByRole('dialog')).toBeVisible()
    await still(page)
    const card = await new AxeBuilder({ page }).include('dialog').analyze()
    expect(card.violations.map((v) => `${v.id}: ${v.nodes[0]?.html}`)).toEqual([])
  })

test('a sentence opens its evidence, and the evidence opens the code', async ({ page, demo }) => {
  await open(page, demo, 'overview')
  await page.getByRole('button', { name: /rings of files: each file needs the next/ }).click()
  await page.locator('.said-so .places a').first().click()
  await expect(page).toHaveURL(/\/code\?at=/)
  await expect(page.getByRole('navigation', { name: 'What is in this file' })).toBeVisible()
})

test('a facet opens its arithmetic', async ({ page, demo }) => {
  await open(page, demo, 'overview')
  await margin(page)
    .getByRole('button', { name: /^Layout/ })
    .click()
  await expect(margin(page).getByText(/100 · e/)).toBeVisible()
})

test('definitions, what a file uses and who uses it lead on', async ({ page, demo }) => {
  await open(page, demo, 'code', 'desk/src/components/WeightTag.tsx')
  const lists = page.getByRole('navigation', { name: 'What is in this file' })
  await lists.getByRole('button', { name: 'WeightTag' }).click()
  await expect(page).toHaveURL(/line=\d+/)
  await lists.getByTitle(/ShelfPicker.*: import/).click()
  await expect(page).toHaveURL(/ShelfPicker.*line=4/)
  await expect(page.locator('.pickedline')).toHaveCount(1)
})

test('routes are found by words and by a typed path, and lead to what answers', async ({ page, demo }) => {
  await open(page, demo, 'overview')
  await page.keyboard.press('5')
  await expect(page.getByRole('status')).toContainText('56 routes')
  const field = page.getByPlaceholder(/to see what answers/)
  await field.fill('growers post')
  await expect(page.getByRole('row')).toHaveCount(2)
  await field.fill('/api/growers/7')
  await expect(page.getByRole('status')).toContainText('GET /api/growers/:id answers /api/growers/7, and nothing else fits')
  await page.getByRole('link', { name: 'readGrower' }).click()
  await expect(page).toHaveURL(/handlers%2Fgrowers.ts|handlers\/growers.ts/)
  await expect(page.locator('.pickedline')).toHaveCount(1)
  await open(page, demo, 'journeys', '', 'path=/nowhere')
  await expect(page.getByText('Nothing found in the codebase answers /nowhere.')).toBeVisible()
})

test('a request is followed from its route to the row that is written, by keyboard', async ({ page, demo }) => {
  await open(page, demo, 'journeys', '', 'path=accessions%20post')
  await expect(page.getByRole('grid', { name: /^Routes/ })).toBeFocused()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  const way = page.getByRole('region', { name: 'The way of POST /api/accessions/add' })
  await expect(way.getByRole('listitem')).toHaveCount(3)
  await expect(way.getByRole('listitem').nth(1)).toContainText('keepAccession logic')
  await expect(way.getByLabel('Lines of insertAccession')).toContainText('INSERT INTO accessions')
  await expect(way).toContainText('It creates accessions')
  await expect(page).toHaveURL(/way=POST/)
  // The address opens it again, and it leads on to the code.
  await page.reload()
  await way.getByRole('link', { name: /logic\/accessions.ts:25/ }).click()
  await expect(page.locator('.pickedline')).toHaveCount(1)
  await open(page, demo, 'journeys', '', 'path=jobs')
  await expect(page.getByRole('grid', { name: /^Routes/ })).toBeFocused()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  await expect(page.getByText('may be: over an interface').first()).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('region', { name: /^The way of/ })).toHaveCount(0)
})

test('a definition says whom it calls and who calls it, and leads there', async ({ page, demo }) => {
  await open(page, demo, 'code', 'counter/src/logic/accessions.ts', 'line=16')
  const one = page.getByRole('region', { name: 'The definition at the picked line' })
  await expect(one.getByRole('heading', { name: 'keepAccession' })).toBeVisible()
  await expect(one).toContainText('Calls 9')
  await expect(one).toContainText('Called by 2')
  await one.getByRole('link', { name: 'addAccession' }).click()
  await expect(page).toHaveURL(/handlers(%2F|\/)accessions.ts&line=18/)
  await expect(one.getByRole('heading', { name: 'addAccession' })).toBeVisible()
})

test('requests and what is kept are listed with the places that do it', async ({ page, demo }) => {
  await open(page, demo, 'journeys')
  await page.getByRole('tab', { name: /^Requests/ }).click()
  await expect(page).toHaveURL(/list=requests/)
  const lost = page.getByRole('row').filter({ hasText: '/api/labels/add' })
  await expect(lost).toContainText('nothing here answers')
  await expect(page.getByRole('row').filter({ hasText: '/api/drying/add' })).toContainText('routes/drying.ts:8')
  await page.getByPlaceholder('words of a name or a path').fill('vault weigh')
  await expect(page.getByRole('row')).toHaveCount(2)
  await page.getByRole('tab', { name: /^What is kept/ }).click()
  const growers = page.getByRole('row').filter({ hasText: 'growers' })
  await expect(growers).toContainText('counter/schema.sql')
  await growers.getByRole('link', { name: /growers.ts:15/ }).click()
  await expect(page.locator('.pickedline')).toHaveCount(1)
  await open(page, demo, 'journeys', '', 'list=messages')
  await expect(page.locator('#view').getByText('request.answered').first()).toBeVisible()
})

test('the margin tells how a file came to be what it is', async ({ page, demo }) => {
  await open(page, demo, 'code', 'counter/src/app.ts')
  await margin(page)
    .getByText(/Changed 10 times, last in September 2026, mostly by/)
    .click()
  await expect(margin(page).getByText('It changes together with')).toBeVisible()
  await expect(margin(page).getByRole('link', { name: /schema.sql/ })).toBeVisible()
})

test('a place is opened in the reader’s own editor and linked to for good', async ({ page, demo, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  await open(page, demo, 'code', 'desk/src/components/WeightTag.tsx', 'line=3&end=4')
  await expect(page.getByText('no editor set')).toBeVisible()
  await page.keyboard.press('?')
  const address = page.getByLabel(/^Editor/)
  await address.fill('editor://open?file={path}&line={line}')
  await address.blur()
  await page.keyboard.press('Escape')
  const link = page.getByRole('link', { name: 'open in my editor' })
  await expect(link).toHaveAttribute(
    'href',
    /^editor:\/\/open\?file=\/.*hollin-vault\/desk\/src\/components\/WeightTag.tsx&line=3$/,
  )
  await page.getByRole('button', { name: 'copy link' }).click()
  await expect(page.getByRole('button', { name: 'link copied' })).toBeVisible()
  const copied = await page.evaluate(() => navigator.clipboard.readText())
  expect(copied).toMatch(/code\?at=.*line=3&end=4&survey=1$/)
  await page.goto(copied)
  await expect(page.locator('.pickedline')).toHaveCount(2)
})

test('a link that takes a folder for a file leads to its ledger', async ({ page, demo }) => {
  await open(page, demo, 'code', 'desk/src/hooks')
  await expect(page.getByRole('treegrid')).toBeVisible()
  await expect(page.getByRole('heading', { level: 1, name: 'desk/src/hooks' })).toBeVisible()
})

test('what an address names wrongly is said, with a way on', async ({ page, demo }) => {
  await page.goto(`${demo.base}/c/1/layout?at=desk/src/hooks/nowhere.ts`)
  await expect(page.getByText(/there is no desk\/src\/hooks\/nowhere.ts/).first()).toBeVisible()
  await page.getByRole('link', { name: 'the whole codebase' }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'hollin-vault' })).toBeVisible()
  await page.goto(`${demo.base}/c/1/nonsense`)
  await expect(page.getByRole('heading', { name: /There is no view/ })).toBeVisible()
  await page.locator('#view').getByRole('link', { name: 'Weave' }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'Weave' })).toBeVisible()
  await page.goto(`${demo.base}/nowhere/at/all`)
  await expect(page.getByRole('heading', { name: 'There is nothing at this address' })).toBeVisible()
  await page.goto(`${demo.base}/c/99/overview`)
  await expect(page.getByRole('heading', { name: 'This codebase can not be shown' })).toBeVisible()
})

test('a name is recorded with what is written under it', async ({ page, demo }) => {
  await open(page, demo, 'layout', 'bench')
  await page.keyboard.press('?')
  await page.getByLabel('Name under which remarks are recorded').fill('Priya Quillan')
  await page.getByLabel('Name under which remarks are recorded').blur()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await page.keyboard.press('n')
  await page.keyboard.type('+ as it should be')
  await page.keyboard.press('Enter')
  await margin(page).getByRole('button', { name: 'as it should be' }).click()
  await expect(page.getByText(/Noted by Priya Quillan/)).toBeVisible()
})

test('the sheet prints on paper without what belongs to the screen', async ({ page, demo }) => {
  await open(page, demo, 'overview')
  await page.emulateMedia({ media: 'print' })
  await expect(page.getByRole('heading', { level: 1, name: 'hollin-vault' })).toBeVisible()
  await expect(margin(page)).toBeHidden()
  await expect(page.getByRole('navigation', { name: 'Views' })).toBeHidden()
})

test('the sheet prints on one page, dark ink on light paper whatever the screen', async ({ page, demo }) => {
  await page.emulateMedia({ colorScheme: 'dark' })
  await open(page, demo, 'overview')
  await expect(page.getByRole('heading', { name: 'What it rests on' })).toBeVisible()
  const pdf = (await page.pdf({ format: 'A4', preferCSSPageSize: true })).toString('latin1')
  expect(pdf.match(/\/Type\s*\/Page\b/g)).toHaveLength(1)
  await page.emulateMedia({ media: 'print' })
  await expect(
    page
      .getByRole('img', { name: /section/i })
      .or(page.locator('.drawn.section'))
      .first(),
  ).toBeVisible()
  await expect
    .poll(() => page.evaluate(() => getComputedStyle(document.querySelector('h1') ?? document.body).color))
    .toBe('rgb(30, 42, 50)')
})

test('a smell is dismissed with a reason and counted again', async ({ page, demo }) => {
  await open(page, demo, 'code', 'desk/src/hooks/useMoistureMeter.ts')
  const count = margin(page).locator('h3', { hasText: 'Smells here' }).locator('span').last()
  await expect(margin(page).getByRole('button', { name: 'Dismiss it' }).first()).toBeVisible()
  const before = Number(await count.textContent())
  await margin(page).getByRole('button', { name: 'Dismiss it' }).first().click()
  await page.keyboard.type('the cards are printed as one set')
  await page.keyboard.press('Enter')
  await expect(count).toHaveText(String(before - 1))
  await expect(margin(page).getByText(/dismissed: the cards are printed as one set/)).toBeVisible()
})

test('text from a codebase is shown, never run', async ({ page, jantel }) => {
  const evil = '<img src=x onerror="document.title=\'bad\'">'
  const root = jantel.tree('evil', {
    'README.md': `# ${evil}\n\n${evil} keeps seed.\n`,
    [`${'a'.repeat(90)}/shelf.ts`]: `// ${evil}\nexport const shelf = 1\n`,
    'b/<b>bold<b>.ts': 'export const b = 1\n',
  })
  await page.getByLabel('Folder, Git repository or archive').fill(root)
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByText('keeps seed.').first()).toBeVisible()
  await page.keyboard.press('2')
  await expect(page.getByRole('treegrid')).toBeVisible()
  await expect(page.locator('#view img')).toHaveCount(0)
  await expect(page).not.toHaveTitle('bad')
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true)
})

test('ten thousand folders are scrolled with few rows in the page', async ({ page, jantel }) => {
  const files: Record<string, string> = {}
  for (let i = 0; i < 100; i++) for (let k = 0; k < 100; k++) files[`shelf${i}/box${k}/lot.ts`] = `export const lot = ${i * k}\n`
  const root = jantel.tree('large', files)
  await page.getByLabel('Folder, Git repository or archive').fill(root)
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(margin(page)).toBeVisible({ timeout: 40_000 })
  await page.keyboard.press('2')
  const grid = page.getByRole('treegrid')
  await expect(grid).toBeVisible()
  await page.getByPlaceholder('Filter by name or purpose').fill('box')
  await expect.poll(async () => Number(await grid.getAttribute('aria-rowcount'))).toBeGreaterThan(10_000)
  await grid.focus()
  await page.keyboard.press('End')
  await expect(grid.getByRole('link', { name: 'box99' }).last()).toBeVisible()
  await expect.poll(() => grid.getByRole('row').count()).toBeLessThan(120)
})

test('a narrow window folds the margin and still reads well', async ({ page, demo }) => {
  await page.setViewportSize({ width: 375, height: 720 })
  await page.goto(`${demo.base}/c/1/findings?open=1`)
  await expect(page.getByRole('heading', { level: 1, name: 'Findings' })).toBeVisible()
  await expect(margin(page)).toHaveCount(0)
  const fits = () =>
    page.evaluate(() => {
      const view = document.getElementById('view')
      return document.documentElement.scrollWidth <= window.innerWidth && (view?.scrollWidth ?? 0) <= window.innerWidth
    })
  expect(await fits()).toBe(true)
  await page.goto(`${demo.base}/c/1/overview`)
  await expect(page.getByRole('heading', { name: 'Where it smells most' })).toBeVisible()
  expect(await fits()).toBe(true)
})
