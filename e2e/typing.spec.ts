// Nothing typed acts by mistake: straight after each opening of everything that opens, on every view, 15 ms a key.
import { expect, margin, open, shown, test } from './jantel'
import type { Page } from '@playwright/test'

const views = ['overview', 'layout', 'weave', 'dependencies', 'journeys', 'findings', 'code'] as const
// Every letter and digit that is a key somewhere.
const typed = 'slzmgn19'

/** Watches over what a page sends that changes something, and over where it is. */
function watch(page: Page): { changes: string[]; stayed: () => void } {
  const changes: string[] = []
  page.on('request', (r) => {
    // A text that is drawn is sent, and changes nothing.
    if (r.method() !== 'GET' && !r.url().endsWith('/api/render')) changes.push(`${r.method()} ${r.url()}`)
  })
  const before = page.url()
  return {
    changes,
    stayed: () => {
      expect(changes, 'what was changed').toEqual([])
      expect(page.url()).toBe(before)
    },
  }
}

const fast = (page: Page, text: string) => page.keyboard.type(text, { delay: 15 })

for (const view of views) {
  test(`on ${view}: what is typed after each opening goes into what opens`, async ({ page, demo }) => {
    // What opens is fetched first; here it takes its time.
    await page.route(/assets\/(Search|KeyCard)-.*\.js/, async (route) => {
      await new Promise((done) => setTimeout(done, 150))
      await route.continue()
    })
    await open(page, demo, view, view === 'code' ? 'desk/src/components/ShelfPicker.tsx' : 'desk/src')
    await shown(page)
    await expect.poll(() => page.evaluate(() => document.activeElement !== document.body)).toBe(true)
    const w = watch(page)
    const box = page.getByRole('textbox', { name: 'Search' })

    for (const opening of ['/', 'Control+k', 'click']) {
      if (opening === 'click') await page.getByRole('button', { name: 'Search /' }).click({ noWaitAfter: true })
      else await page.keyboard.press(opening)
      await fast(page, typed)
      await expect(box).toHaveValue(typed)
      await page.keyboard.press('Escape')
      await expect(box).toBeHidden()
      await expect.poll(() => page.evaluate(() => document.activeElement !== document.body)).toBe(true)
      w.stayed()
    }

    await page.keyboard.press('?')
    await fast(page, typed)
    await expect(page.getByRole('heading', { name: 'Keys', exact: true })).toBeVisible()
    await page.keyboard.press('Escape')
    w.stayed()

    const note = page.getByLabel(/^Remark on/)
    await expect.poll(() => page.evaluate(() => document.activeElement !== document.body)).toBe(true)
    await page.keyboard.press('n')
    await fast(page, typed)
    await expect(note).toHaveValue(typed)
    await note.fill('')
    await page.keyboard.press('Escape')
    await page.keyboard.press('m')
    await expect(note).toBeHidden()
    await page.keyboard.press('n')
    await fast(page, typed)
    await expect(note).toHaveValue(typed)
    await note.fill('')
    await page.keyboard.press('Escape')
    w.stayed()

    await page.getByRole('button', { name: 'Beside src' }).click({ noWaitAfter: true })
    await fast(page, typed)
    await expect(page.getByRole('menu')).toBeVisible()
    await page.keyboard.press('Escape')
    w.stayed()
  })
}

test('after a remark is saved the next n is a key again', async ({ page, demo }) => {
  await open(page, demo, 'layout', 'desk/src')
  await page.keyboard.press('n')
  await fast(page, 'one')
  await page.keyboard.press('Enter')
  await page.keyboard.press('n')
  await fast(page, 'two')
  await page.keyboard.press('Enter')
  await expect(margin(page).getByRole('button', { name: 'one', exact: true })).toBeVisible()
  await expect(margin(page).getByRole('button', { name: 'two', exact: true })).toBeVisible()
  await expect(page.getByLabel(/^Remark on/)).toHaveValue('')
})

test('after dismissing, after opening a finding and when the focus was lost nothing acts', async ({ page, demo }) => {
  await open(page, demo, 'layout', 'desk/src/store')
  await margin(page).getByRole('button', { name: 'Dismiss it' }).click({ noWaitAfter: true })
  await fast(page, typed)
  await expect(page.getByLabel('Reason for dismissing')).toHaveValue(typed)
  const silenced = page.waitForRequest((r) => r.url().endsWith('/silences'))
  await page.keyboard.press('Enter')
  await silenced
  await expect(page.getByRole('status').filter({ hasText: 'Dismissed:' })).toBeVisible()

  await open(page, demo, 'findings')
  await expect(page.locator('.frow').first()).toBeVisible()
  const changes: string[] = []
  page.on('request', (r) => r.method() !== 'GET' && !r.url().endsWith('/api/render') && changes.push(r.url()))
  // In one go: what opens is there a moment later, and somebody types on.
  await page
    .locator('.frow [aria-expanded=false]')
    .first()
    .evaluate((title: HTMLElement) => {
      title.focus()
      title.click()
      for (const key of 'lsz19') title.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }))
    })
  await expect(page.locator('.editor')).toBeVisible()
  await expect(page).toHaveURL(/findings.*open=/)
  expect(changes, 'what was changed').toEqual([])
  const w = watch(page)
  await fast(page, 'lsz')
  w.stayed()
  // Who narrows the list while a finding is open stays in what narrows it.
  const state = page.locator('.filters select').nth(1)
  await state.focus()
  await state.selectOption({ index: 1 })
  await expect(page).toHaveURL(/state=/)
  await expect(state).toBeFocused()

  await open(page, demo, 'layout', 'desk/src')
  const v = watch(page)
  // In one go, so that no pause lets the view have it back in between.
  await page.evaluate(() => {
    ;(document.activeElement as HTMLElement).blur()
    for (const key of 'lsz19') document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }))
  })
  v.stayed()
  // Once nobody types, the view has the keyboard again.
  await expect.poll(() => page.evaluate(() => document.activeElement !== document.body)).toBe(true)
  await page.keyboard.press('1')
  await expect(page).toHaveURL(/overview/)
})

test('marking a whole codebase says so and is taken back, one by one marks kept', async ({ page, demo }) => {
  await open(page, demo, 'overview')
  const looked = page.locator('.looked')
  await expect(looked).toContainText('%') // it is there once the marks have been fetched
  const before = await looked.textContent()
  await page.keyboard.press('l')
  await expect(page.getByRole('status').filter({ hasText: /Marked as looked at: \d+ files of the whole codebase/ })).toBeVisible()
  await expect(looked).toContainText('100 %')
  await page.keyboard.press('l')
  await expect(looked).toContainText(/^0 %/)
  await page.keyboard.press('z')
  await expect(looked).toContainText('100 %')
  await page.keyboard.press('z')
  await expect(looked).toHaveText(before ?? '')
})

test("undo leaves a colleague's newer change and offers to take it back all the same", async ({ page, demo, context }) => {
  await open(page, demo, 'findings')
  const row = page.locator('.frow').first()
  await row.getByRole('button', { expanded: false }).click()
  await page.locator('.editor').getByLabel('state').selectOption('doing')
  await expect(row.locator('.fstate')).toHaveText('doing')
  const other = await context.newPage()
  await open(other, demo, 'findings')
  await other.locator('.frow').first().getByRole('button', { expanded: false }).click()
  await other.locator('.editor').getByLabel('state').selectOption('done')
  await expect(row.locator('.fstate')).toHaveText('done')
  await page.getByRole('button', { name: 'Close' }).click()
  await page.keyboard.press('z')
  await expect(page.getByText('Somebody has changed state of')).toBeVisible()
  await expect(row.locator('.fstate')).toHaveText('done')
  await page.getByRole('button', { name: 'Take it back all the same' }).click()
  await expect(row.locator('.fstate')).not.toHaveText('done')
  await other.close()
})

test('arrows typed fast in the Weave are all heeded', async ({ page, demo }) => {
  await open(page, demo, 'weave')
  await page.getByRole('table', { name: /Roles by features/ }).focus()
  // All keys come before the page can be drawn anew.
  await page.evaluate(() => {
    for (const key of ['ArrowDown', 'ArrowDown', 'ArrowDown', 'ArrowUp'])
      document.activeElement?.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }))
  })
  await expect(page).toHaveURL(/role=routing&feature=grower/)
})
