import { counted } from '../theme/ink'

/** The name of a definition without all but the nearest of what it stands in. */
export const lastName = (qualified: string): string => qualified.split('.').slice(-2).join('.')

/** How many calls of a file lead nowhere that is known. */
export const outOf = (untold: number): string =>
  `${counted(untold, 'call')} of this file ${untold === 1 ? 'leads' : 'lead'} nowhere that is known.`
