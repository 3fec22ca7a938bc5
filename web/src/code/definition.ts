import type { CallEnd, Touched } from '../api/types'
import { counted } from '../theme/ink'

/** How many calls of a file lead nowhere that is known. */
export const outOf = (untold: number): string =>
  `${counted(untold, 'call')} of this file ${untold === 1 ? 'was' : 'were'} not followed: built in, or of what is not told.`

/** Whether more is done with it than to read it. */
export const acts = (e: Pick<CallEnd, 'kind'>): boolean => e.kind !== 'read'

/** How sure the places of a rename are, the surest first. */
const ties = ['sure', 'likely', 'only looks like'] as const

/** The places of a rename by how sure they are; sorts without any are left out. */
export const byTie = (places: Touched['places']) =>
  ties.map((tie) => ({ tie, places: places.filter((p) => p.tie === tie) })).filter((x) => x.places.length > 0)
