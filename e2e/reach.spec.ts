// A change weighed as a picture, another address tried, a picture of a screen tied to parts, any view beside a second place.
import { views } from '../web/src/shell/views'
import { expect, open, test } from './jantel'

test('what a change may touch is drawn step by step, walked by keys and looked at from elsewhere', async ({ page, demo }) => {
  await open(page, demo, 'dependencies', 'counter/src/data')
  await page.getByRole('tab', { name: 'Reach' }).click()
  await expect(page.getByRole('status')).toContainText(/A change to counter\/src\/data may touch \d+ files/)
  const drawing = page.getByRole('group', { name: /What a change may touch, from counter\/src\/data/ })
  await drawing.focus()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowRight')
  await expect(page).toHaveURL(/pick=counter%2Fsrc%2F/)
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/mode=reach/)
  await expect(page).not.toHaveURL(/at=counter%2Fsrc%2Fdata&/)
  await page.getByRole('button', { name: 'What comes along when it is taken elsewhere' }).click()
  await expect(page.getByRole('status')).toContainText(/^Taken elsewhere, /)
  await page.goBack()
  await page.getByRole('button', { name: 'as a list' }).click()
  await expect(page.locator('.levels')).toContainText('directly')
})

test('reach goes out as a drawing and as a text', async ({ page, demo }) => {
  await open(page, demo, 'dependencies', 'counter/src/logic/growers.ts', 'mode=reach')
  for (const [name, begins] of [
    ['SVG', '<svg'],
    ['Markdown', '# What a change at `counter/src/logic/growers.ts` may touch'],
  ] as const) {
    const href = await page.getByRole('link', { name, exact: true }).getAttribute('href')
    const answer = await page.request.get(new URL(href ?? '', page.url()).href)
    expect(answer.ok()).toBe(true)
    expect(await answer.text()).toContain(begins)
  }
})

test('the margin leads from its lists to the drawing', async ({ page, demo }) => {
  await open(page, demo, 'layout', 'counter/src/data')
  await page.getByText('What a change here may touch').click()
  await page.getByRole('link', { name: 'As a drawing' }).click()
  await expect(page).toHaveURL(/dependencies\?at=counter%2Fsrc%2Fdata&mode=reach/)
})

test('a way says what runs around it, and another address is tried before it is written', async ({ page, demo }) => {
  await open(page, demo, 'journeys', 'counter')
  await page.getByRole('grid').focus()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  const way = page.getByRole('region', { name: /The way of GET \/api\/accessions\/:id/ })
  await expect(way).toContainText('Before it answers, in this order: express.json')
  await way.getByText('Try another address for it').click()
  const field = way.getByRole('searchbox', { name: 'Another address' })
  await field.pressSequentially('/api/accessions/:any', { delay: 15 })
  await expect(way.getByRole('status')).toContainText('Nothing would answer otherwise')
  await field.fill('/api/:what/add')
  await expect(way.getByRole('status')).toContainText(/addresses? would be answered otherwise/)
  await expect(way).toContainText('nothing would answer')
  await field.fill('POST')
  await expect(way.getByRole('status')).toHaveCount(0)
  const href = await way.getByRole('link', { name: 'SVG' }).getAttribute('href')
  expect(await (await page.request.get(new URL(href ?? '', page.url()).href)).text()).toContain('readAccession')
})

test('a picture of the screen is put to a part, a box in it tied, and all of it taken back', async ({ page, demo }) => {
  await open(page, demo, 'parts', 'desk')
  // It stands in the whole list as well: what is left has to be nothing else.
  const others = page.getByRole('row', { name: /ShelfPicker/ })
  await expect(others.first()).toBeVisible()
  await page.getByRole('searchbox').fill('PrintSheet')
  await expect(others).toHaveCount(0)
  await page.getByRole('grid').focus()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  const pictures = page.getByRole('region', { name: 'Pictures of PrintSheet' })
  const shot = await page.screenshot()
  await pictures.getByLabel(/Drop a picture/).setInputFiles({ name: 'shelf.png', mimeType: 'image/png', buffer: shot })
  const screen = pictures.getByRole('img', { name: /The screen of PrintSheet/ })
  await expect(screen).toBeVisible()
  await screen.scrollIntoViewIfNeeded()
  const at = await screen.boundingBox()
  if (!at) throw new Error('the picture is not in sight')
  await page.mouse.move(at.x + at.width * 0.2, at.y + at.height * 0.2)
  await page.mouse.down()
  await page.mouse.move(at.x + at.width * 0.5, at.y + at.height * 0.4, { steps: 4 })
  await page.mouse.up()
  const name = pictures.getByLabel('The box is')
  await name.fill('no such part')
  await expect(pictures.getByRole('button', { name: 'Tie it' })).toBeDisabled()
  const known = await pictures.locator('datalist option').first().getAttribute('value')
  await name.fill(known ?? '')
  await page.keyboard.press('Enter')
  const tied = screen.locator('xpath=..').getByRole('link', { name: known ?? '' })
  await expect(tied).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(tied).toHaveCount(0)
  await pictures.getByRole('button', { name: 'Take it away' }).click()
  await expect(screen).toHaveCount(0)
  // What is no picture is said, and nothing is lost.
  await pictures
    .getByLabel(/Drop a picture/)
    .setInputFiles({ name: 'shelf.png', mimeType: 'image/png', buffer: Buffer.from('<svg onload="alert(1)">') })
  await expect(pictures).toContainText('that is no picture')
})

for (const v of views.filter((x) => x.says.folder)) {
  test(`${v.title} stands beside a second place`, async ({ page, demo }) => {
    const failed: string[] = []
    page.on('pageerror', (e) => failed.push(e.message))
    await open(page, demo, v.id, 'counter', 'with=desk')
    const beside = page.getByRole('region', { name: 'Beside', exact: true })
    await expect(beside.getByRole('heading', { level: 1 })).toBeVisible()
    await expect(page.locator('.pane-here').getByRole('heading', { level: 1 })).toBeVisible()
    expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true)
    expect(failed).toEqual([])
  })
}
