import type { Way } from '../api/types'
import { counted, figure } from '../theme/ink'

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

/** That nothing is asked before a route answers, where most routes of its file ask; nothing where that is usual. */
export function unasked(w: Pick<Way, 'guards' | 'guarded' | 'beside'>): string {
  if (w.guards.length > 0 || w.guarded === 0 || 2 * w.guarded < w.beside) return ''
  return `Nothing is asked before it answers, where ${figure(w.guarded)} of ${counted(w.beside, 'other route')} of its file ask.`
}

/** How many tests are named; more are counted. */
const most = 3

/** The tests that reach it over the fewest calls. */
export const nearestTests = (tests: Way['tests']): Way['tests'] =>
  [...tests].sort((a, b) => a.distance - b.distance || (a.path < b.path ? -1 : 1)).slice(0, most)

/** What is done to something that is kept, as a verb. */
export const done: Record<string, string> = { create: 'creates', read: 'reads', update: 'changes', delete: 'deletes' }
