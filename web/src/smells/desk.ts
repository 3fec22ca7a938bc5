import type { Desk } from '../api/types'

/** What smells are put together by. */
export const groupings = [
  { id: 'rule', text: 'rule' },
  { id: 'folder', text: 'folder' },
  { id: 'feature', text: 'feature' },
  { id: 'facet', text: 'facet' },
  { id: 'telling', text: 'habit' },
] as const

export type Grouping = (typeof groupings)[number]['id']

/** What of the smells is asked for, as the address says. */
export interface Asked {
  group: Grouping
  key: string
  words: string
  quiet: boolean
  /** Every hit by itself, those as well that another tells of. */
  each: boolean
}

export function askedFrom(q: URLSearchParams): Asked {
  const group = groupings.find((g) => g.id === q.get('group'))?.id ?? 'rule'
  return {
    group,
    key: q.get('key') ?? '',
    words: q.get('words') ?? '',
    quiet: q.get('quiet') === '1',
    each: q.get('each') === '1',
  }
}

/** How many smells come at first, and at most in one list. */
export const firstCount = 150
export const mostCount = 500

/** After so many were dismissed one by one, the rule itself is asked about. */
export const enoughDismissed = 3

/** Whether it is time to ask if the rule itself should rest. */
export const mayRest = (rule: NonNullable<Desk['rule']>): boolean => !rule.rests && rule.dismissed.length >= enoughDismissed

/** The marks that are left when other smells are shown: what is not seen is not acted on. */
export const stillShown = (marked: ReadonlySet<string>, shown: readonly { id: string }[]): string[] =>
  shown.filter((s) => marked.has(s.id)).map((s) => s.id)
