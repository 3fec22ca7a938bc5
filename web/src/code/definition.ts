import type { CallEnd } from '../api/types'
import { counted } from '../theme/ink'

/** The name of a definition without all but the nearest of what it stands in. */
export const lastName = (qualified: string): string => qualified.split('.').slice(-2).join('.')

/** How many calls of a file lead nowhere that is known. */
export const outOf = (untold: number): string =>
  `${counted(untold, 'call')} of this file ${untold === 1 ? 'was' : 'were'} not followed: built in, or of what is not told.`

/** Whether more is done with it than to read it. */
export const acts = (e: Pick<CallEnd, 'kind'>): boolean => e.kind !== 'read'

/** What is done with it, where it is no plain call. */
export const kinds: Record<string, string> = {
  construct: 'built ',
  render: 'drawn ',
  inherit: 'built upon ',
  inject: 'handed in ',
}
