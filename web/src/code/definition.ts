import type { CallEnd } from '../api/types'
import { counted } from '../theme/ink'

/** How many calls of a file lead nowhere that is known. */
export const outOf = (untold: number): string =>
  `${counted(untold, 'call')} of this file ${untold === 1 ? 'was' : 'were'} not followed: built in, or of what is not told.`

/** Whether more is done with it than to read it. */
export const acts = (e: Pick<CallEnd, 'kind'>): boolean => e.kind !== 'read'
