import type { ReachPicture } from '../api/types'
import { counted, figure } from '../theme/ink'

/** Which way one looks from a place: to what a change may touch, or to what comes along. */
export type Way = 'touched' | 'along'

export const titleOf: Record<Way, string> = {
  touched: 'What a change may touch',
  along: 'What comes along when it is taken elsewhere',
}

/** What a picture shows, in a sentence. */
export function saysReach(x: Pick<ReachPicture, 'way' | 'what' | 'reached' | 'tests' | 'columns'>, place: string): string {
  const tests = x.tests > 0 ? `, and ${figure(x.tests)} of tests` : ''
  if (x.way === 'along') {
    if (x.reached === 0) return `Taken elsewhere, ${place} needs nothing of the rest.`
    return `Taken elsewhere, ${place} brings ${counted(x.reached, x.what)} along${tests}.`
  }
  if (x.reached === 0)
    return x.tests > 0 ? `Tests alone were found to need ${place}: ${figure(x.tests)}.` : `Nothing was found that needs ${place}.`
  const direct = x.columns[1]?.count ?? 0
  return `A change to ${place} may touch ${counted(x.reached, x.what)}, ${figure(direct)} of them directly${tests}.`
}
