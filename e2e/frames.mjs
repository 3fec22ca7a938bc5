// Measures what the browser does with a large survey: how long a view takes from
// the address to its last paint, and the frames while it is scrolled or moved
// over, by the browser's own clock. Called by the benchmarks with the server's
// address, the session's cookie and the number of the codebase.
import { chromium } from '@playwright/test'

const [base, cookie, id] = process.argv.slice(2)
const [name, ...value] = cookie.split('=')
const browser = await chromium.launch({ executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium', args: ['--no-sandbox'] })
const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
await context.addCookies([{ name, value: value.join('='), url: base }])
const page = await context.newPage()

/** Runs in the page: the time of each frame while something is done, in milliseconds. */
const frames = (steps) =>
  page.evaluate(async (n) => {
    const box = document.querySelector('.ruled.own') ?? document.querySelector('.drawing') ?? document.scrollingElement
    const times = []
    let last = performance.now()
    for (let i = 0; i < n; i++) {
      box.scrollTop += 140
      const now = await new Promise((done) => requestAnimationFrame(done))
      times.push(now - last)
      last = now
    }
    return times.slice(1)
  }, steps)

const told = (what, times) => {
  const sorted = [...times].sort((a, b) => a - b)
  const at = (share) => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))].toFixed(0)
  console.log(`  ${what.padEnd(32)} ${at(0.5).padStart(6)} ms ${at(0.95).padStart(6)} ms ${at(1).padStart(6)} ms`)
}

console.log('in the browser: frames, median, 95th of 100, longest (budget: none over 50 ms)')
for (const [view, ready] of [
  ['layout', '.rbody .rrow:nth-child(4)'],
  ['dependencies', '.drawing g.box, .drawing .mcell'],
  ['weave', '.weave td .cell'],
]) {
  const began = Date.now()
  await page.goto(`${base}/c/${id}/${view}`)
  await page.locator(ready).first().waitFor()
  const took = Date.now() - began
  if (view === 'layout') {
    // Everything unfolded is the most there can be to scroll.
    await page.locator('.ruled.own').focus()
    told('layout, scrolled', await frames(180))
  } else {
    const box = await page.locator(view === 'weave' ? '.weave table' : '.drawing svg').boundingBox()
    await page.evaluate(() => {
      window.times = []
      let last = performance.now()
      const step = (now) => {
        window.times.push(now - last)
        last = now
        window.frame = requestAnimationFrame(step)
      }
      window.frame = requestAnimationFrame(step)
    })
    for (let i = 0; i < 60; i++)
      await page.mouse.move(box.x + ((i * 37) % Math.min(box.width, 900)), box.y + 20 + ((i * 53) % Math.min(box.height, 500)))
    told(
      `${view}, moved over`,
      await page.evaluate(() => {
        cancelAnimationFrame(window.frame)
        return window.times.slice(2)
      }),
    )
  }
  const paint = await page.evaluate(() => performance.getEntriesByType('navigation')[0]?.domContentLoadedEventEnd ?? 0)
  console.log(
    `  ${`${view}, from address to rows`.padEnd(32)} ${String(took).padStart(6)} ms  (document ready after ${paint.toFixed(0)} ms)`,
  )
}

// A task that holds the page for long is felt as a page that does not answer.
console.log('first look at a view: longest task of the page, median of five openings (budget: none over 200 ms)')
await page.addInitScript(() => {
  window.tasks = []
  new PerformanceObserver((list) => window.tasks.push(...list.getEntries().map((e) => e.duration))).observe({
    type: 'longtask',
    buffered: true,
  })
})
for (const view of ['overview', 'layout', 'weave', 'dependencies', 'journeys', 'parts', 'names', 'smells', 'findings']) {
  const longest = []
  for (let i = 0; i < 5; i++) {
    await page.goto(`${base}/c/${id}/${view}`, { waitUntil: 'networkidle' })
    longest.push(await page.evaluate(() => Math.max(0, ...window.tasks)))
  }
  longest.sort((a, b) => a - b)
  console.log(`  ${view.padEnd(32)} ${longest[2].toFixed(0).padStart(6)} ms  (at most ${longest[4].toFixed(0)} ms)`)
}
await browser.close()
