// Step 1: take a codebase in, see how far its survey is, set the brief.
import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, margin, open, test } from './jantel'

const vault = {
  'README.md': '# Vault\n\nKeeps the boxes of the seed vault.\n\n```\nmake test\n```\n',
  'go.mod': 'module vault\n\ngo 1.26\n',
  'main.go': 'package main\n\nimport "vault/shelf"\n\nfunc main() { shelf.Count() }\n',
  'shelf/shelf.go': '// Package shelf counts boxes.\npackage shelf\n\n// Count counts.\nfunc Count() int { return 3 }\n',
}

test('a folder is taken in and its first sentence stands there', async ({ page, jantel }) => {
  const root = jantel.tree('vault', vault)
  await page.getByLabel('Folder, Git repository or archive').fill(root)
  await page.getByRole('button', { name: 'Take it in' }).click()
  // Taken in, one stands where what is found will stand.
  await expect(page).toHaveURL(/\/c\/1\/overview/)
  await expect(page.getByText('Keeps the boxes of the seed vault.').first()).toBeVisible()
  await expect(page.getByText(/lines of code in 2 source files/)).toBeVisible()
  await expect(page.getByText('make test').first()).toBeVisible()
})

test('what is no codebase is said in words and leaves nothing behind', async ({ page, jantel }) => {
  const root = jantel.tree('vault', vault)
  jantel.tree('empty', {})
  const repo = jantel.tree('repo', vault)
  const git = (...args: string[]) =>
    execFileSync('git', ['-c', 'user.name=Odd', '-c', 'user.email=odd@hollin.example', ...args], { cwd: repo })
  git('init', '-q')
  git('add', '.')
  git('commit', '-qm', 'Start')
  for (const [path, revision, words] of [
    [join(root, 'nowhere'), '', /does not exist|no such/],
    [join(root, 'main.go'), '', /is a file/],
    ['/etc', '', /allowed/],
    [repo, 'no-such-branch', /no revision "no-such-branch"/],
    [root, 'main', /not a Git repository/],
  ] as const) {
    await page.getByLabel('Folder, Git repository or archive').fill(path)
    await page.getByLabel('Revision').fill(revision)
    await page.getByRole('button', { name: 'Take it in' }).click()
    await expect(page.getByRole('alert')).toContainText(words)
    await expect(page.getByLabel('Folder, Git repository or archive')).toHaveValue(path)
  }
  await page.reload()
  await expect(page.getByText('None yet.')).toBeVisible()
})

test('a folder is chosen from those allowed', async ({ page, jantel }) => {
  jantel.tree('moor/vault', vault)
  await page.reload()
  await page.getByText('Choose a folder').click()
  await page.getByRole('button', { name: /\/allowed$/ }).click()
  await page.getByRole('button', { name: 'moor', exact: true }).click()
  await page.getByRole('button', { name: 'vault', exact: true }).click()
  await expect(page.getByLabel('Folder, Git repository or archive')).toHaveValue(/moor\/vault$/)
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByText('Keeps the boxes of the seed vault.').first()).toBeVisible()
})

test('a link opened in another browser is kept through the sign-in', async ({ page, demo, browser }) => {
  await open(page, demo, 'overview')
  const context = await browser.newContext()
  const other = await context.newPage()
  await other.goto(`${demo.base}/c/1/code?at=desk%2Fsrc%2FApp.tsx&line=4`)
  await expect(other.getByRole('heading', { name: 'This browser is not let in yet' })).toBeVisible()
  await other.getByLabel(/paste that address/).fill(demo.url)
  await other.getByRole('button', { name: 'Go on' }).click()
  await expect(other.getByRole('heading', { level: 1, name: 'desk/src/App.tsx' })).toBeVisible()
  await expect(other).toHaveURL(/line=4/)
  await context.close()
})

test('a revision is read without a checkout', async ({ page, jantel }) => {
  const repo = jantel.tree('repo', vault)
  const git = (...args: string[]) =>
    execFileSync('git', ['-c', 'user.name=Odd', '-c', 'user.email=odd@hollin.example', ...args], { cwd: repo })
  git('init', '-q')
  git('add', '.')
  git('commit', '-qm', 'Count the boxes')
  git('tag', 'first')
  git('rm', '-rq', 'shelf')
  git('commit', '-qm', 'Drop the shelf')
  await page.getByLabel('Folder, Git repository or archive').fill(repo)
  await page.getByLabel('Revision').fill('first')
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByText('“Count the boxes” by Odd')).toBeVisible()
  await page.keyboard.press('2')
  await expect(page.getByRole('treegrid').getByRole('link', { name: 'shelf', exact: true })).toBeVisible()
})

test('an archive is sent, a broken one is refused', async ({ page, jantel }) => {
  jantel.tree('vault', vault)
  const tar = join(jantel.folder, 'vault.tar.gz')
  execFileSync('tar', ['-czf', tar, '-C', join(jantel.folder, 'allowed', 'vault'), '.'])
  const broken = join(jantel.folder, 'broken.zip')
  writeFileSync(broken, 'these are only words')
  await page.getByLabel('Archive to send').setInputFiles(broken)
  await expect(page.getByRole('alert')).toContainText(/zip/)
  await page.getByLabel('Archive to send').setInputFiles(tar)
  await expect(page.getByText('from an archive')).toBeVisible()
})

test('the brief is filled in and judged by at once', async ({ page, demo }) => {
  await open(page, demo, 'overview')
  await page.getByRole('button', { name: 'Change the brief' }).click()
  await page.getByLabel('Out of scope').fill('[broken')
  await page.getByRole('button', { name: 'Judge by this brief' }).click()
  await expect(page.getByRole('alert')).toContainText('What you wrote is still here')
  await page.getByLabel('Out of scope').fill('desk/**')
  await page.getByLabel('Questions').fill('Which shelf is full?')
  await page.getByLabel('sketch').check()
  await page.getByRole('button', { name: 'Judge by this brief' }).click()
  await expect(page.getByText('Which shelf is full?')).toBeVisible()
  await expect(page.getByText('The brief leaves part of the codebase out of scope')).toBeVisible()
  await expect(margin(page).getByText(/Rests on \d+ % of the lines/)).not.toContainText('100 %')
})

test('a codebase is surveyed again and removed', async ({ page, jantel }) => {
  const root = jantel.tree('vault', vault)
  await page.getByLabel('Folder, Git repository or archive').fill(root)
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(margin(page)).toBeVisible()
  await page.getByRole('link', { name: 'Jantel' }).click()
  await expect(page.getByText(/4 files, .* surveyed/)).toBeVisible()
  jantel.tree('vault', { 'shelf/box.go': 'package shelf\n\ntype Box struct{}\n' })
  await page.getByRole('button', { name: 'Survey again' }).click()
  await expect(page.getByText(/5 files, .* surveyed/)).toBeVisible()
  await page.getByRole('button', { name: 'Remove …' }).click()
  await page.getByRole('button', { name: 'Remove it with its findings' }).click()
  await expect(page.getByText(/is removed: 2 surveys, \d+ texts that nothing else holds/)).toBeVisible()
  await expect(page.getByText('None yet.')).toBeVisible()
})
