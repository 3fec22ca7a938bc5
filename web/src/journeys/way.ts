import type { Way } from '../api/types'

/** What a route does not come through that most beside it do, as a sentence. */
export function lacks(skipped: Way['skipped']): string {
  const named = skipped.map((r) => words[r] ?? r)
  return `Most routes beside it come through ${named.join(' and ')}; this one does not.`
}

const words: Record<string, string> = {
  logic: 'rules of their own',
  'data access': 'access to data',
  schema: 'a check of what comes in',
}

/** How many tests are named; more are counted. */
const most = 3

/** The tests that reach it over the fewest calls. */
export const nearestTests = (tests: Way['tests']): Way['tests'] =>
  [...tests].sort((a, b) => a.distance - b.distance || (a.path < b.path ? -1 : 1)).slice(0, most)
