// A running Jantel for each test: its own process, port and data folder, so
// that no test sees what another wrote.
import { test as base, expect, type Page } from '@playwright/test'
import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, mkdirSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

const binary = join(dirname(fileURLToPath(import.meta.url)), '..', 'bin', 'jantel')

export class Jantel {
  readonly folder = mkdtempSync(join(tmpdir(), 'jantel-e2e-'))
  url = ''
  private process?: ChildProcess

  /** Starts the program and waits for the address it prints. */
  async start(command: 'demo' | 'serve', addr = '127.0.0.1:0'): Promise<void> {
    const args = [command, '--addr', addr, '--data', join(this.folder, 'data'), '--allow', join(this.folder, 'allowed')]
    mkdirSync(join(this.folder, 'allowed'), { recursive: true })
    const p = spawn(binary, args, { stdio: ['ignore', 'pipe', 'pipe'], env: { ...process.env, HOME: this.folder } })
    this.process = p
    this.url = await new Promise<string>((found, failed) => {
      let out = ''
      const read = (d: Buffer) => {
        out += String(d)
        const m = /http:\/\/\S+/.exec(out)
        if (m && /token=[0-9a-f]+\s/.test(out)) found(m[0])
      }
      p.stdout?.on('data', read)
      p.stderr?.on('data', read)
      p.on('exit', (code) => failed(new Error(`jantel ended with ${code}: ${out}`)))
    })
  }

  get base(): string {
    return new URL(this.url).origin
  }

  /** Ends the process; SIGKILL is how a machine that goes down ends it. */
  async stop(signal: NodeJS.Signals = 'SIGTERM'): Promise<void> {
    const p = this.process
    this.process = undefined
    if (!p || p.exitCode !== null) return
    const gone = new Promise((done) => p.on('exit', done))
    p.kill(signal)
    await gone
  }

  /** Writes a tree below the folder that may be surveyed. */
  tree(name: string, files: Record<string, string>): string {
    const root = join(this.folder, 'allowed', name)
    for (const [path, text] of Object.entries(files)) {
      const p = join(root, path)
      mkdirSync(dirname(p), { recursive: true })
      writeFileSync(p, text)
    }
    return root
  }

  clean(): void {
    rmSync(this.folder, { recursive: true, force: true })
  }
}

/** A page that is let in, with a hollow place for complaints of the browser. */
async function letIn(page: Page, j: Jantel): Promise<string[]> {
  const complaints: string[] = []
  page.on('pageerror', (e) => complaints.push(e.message))
  page.on('console', (m) => {
    // A refused request is told by the browser too; the interface has its own words for it.
    if (m.type() === 'error' && !m.text().includes('Failed to load resource')) complaints.push(m.text())
  })
  await page.goto(j.url)
  await expect(page.getByRole('heading', { name: 'Jantel' })).toBeVisible()
  return complaints
}

/** `jantel` is a fresh server with nothing in it; `demo` one with the demo; the page is let in. */
export const test = base.extend<{ jantel: Jantel; demo: Jantel }>({
  jantel: async ({ page }, use) => {
    const j = new Jantel()
    await j.start('serve')
    const complaints = await letIn(page, j)
    await use(j)
    // The page goes first: what it still loads would fail once the server is gone.
    await page.close()
    await j.stop()
    j.clean()
    expect(complaints, 'what the browser complained of').toEqual([])
  },
  demo: async ({ page }, use) => {
    const j = new Jantel()
    await j.start('demo')
    const complaints = await letIn(page, j)
    await use(j)
    // The page goes first: what it still loads would fail once the server is gone.
    await page.close()
    await j.stop()
    j.clean()
    expect(complaints, 'what the browser complained of').toEqual([])
  },
})

export { expect }

/** Opens a view of the demo at a place. */
export async function open(page: Page, j: Jantel, view: string, at = '', more = ''): Promise<void> {
  const q = [at && `at=${encodeURIComponent(at)}`, more].filter(Boolean).join('&')
  await page.goto(`${j.base}/c/1/${view}${q ? `?${q}` : ''}`)
  await expect(page.getByRole('complementary', { name: 'Margin' })).toBeVisible()
  // Keys act once the view has the keyboard; before that they go nowhere.
  await page.waitForFunction(() => document.activeElement !== document.body)
}

/** Waits until the view shows what it is of, and not that it is still worked out. */
export async function shown(page: Page, why?: string): Promise<void> {
  const view = page.locator('#view')
  const filled = view.filter({ hasText: /\S/ }).filter({ hasNot: page.getByLabel('Loading') })
  await expect(filled, why).toHaveCount(1)
}

/** The margin beside the view. */
export const margin = (page: Page) => page.getByRole('complementary', { name: 'Margin' })

/** Waits until nothing moves and all letters are there. */
export async function still(page: Page): Promise<void> {
  await page.evaluate(async () => {
    await document.fonts.ready
    await Promise.all(document.getAnimations().map((a) => a.finished.catch(() => undefined)))
  })
}
