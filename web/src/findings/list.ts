import type { Listing } from '../api/queries'
import type { FindingList, Listed } from '../api/types'
import type { Where } from '../place/place'
import { kinds } from '../review/kinds'

export type Grouping = 'order' | 'place' | 'kind' | 'state' | 'person' | 'label'

export const groupings: { id: Grouping; title: string }[] = [
  { id: 'order', title: 'order' },
  { id: 'place', title: 'place' },
  { id: 'kind', title: 'kind' },
  { id: 'state', title: 'state' },
  { id: 'person', title: 'person' },
  { id: 'label', title: 'label' },
]

/** What an address asks of the list. */
export function listingFrom(w: Where, q: URLSearchParams): Listing {
  const of = (name: string) => q.get(name) ?? ''
  return {
    at: w.at === '.' ? '' : w.at,
    words: of('words'),
    kind: of('kind'),
    state: of('state'),
    person: of('person'),
    label: of('label'),
    group: of('group'),
    feature: w.feature,
    role: w.role,
  }
}

/** The same as it stands in the address of what is handed out. */
export function queryOf(l: Listing): string {
  return new URLSearchParams(Object.entries(l).filter(([k, v]) => v !== '' && k !== 'group')).toString()
}

/** One row of the list: a finding, or the place of one that is still on its way. */
export interface Row {
  id: string
  index: number
  /** Which group it stands in. */
  group: number
  f: Listed | null
}

/** All rows of a list, of which the stretches that came are filled in. */
export function rowsOf(stretches: readonly FindingList[]): Row[] {
  const head = stretches[0]
  if (!head) return []
  const rows: Row[] = []
  head.groups.forEach((g, group) => {
    for (let i = 0; i < g.count; i++) rows.push({ id: `${group}:?${rows.length}`, index: rows.length, group, f: null })
  })
  for (const s of stretches)
    s.rows.forEach((f, i) => {
      const row = rows[s.from + i]
      if (row) rows[s.from + i] = { ...row, f, id: `${row.group}:${f.id}` }
    })
  return rows
}

/** Whether a row is the first of its group. */
export const startsGroup = (r: Row, before: Row | undefined): boolean => before?.group !== r.group

/** What a group is called. */
export function groupTitle(by: Grouping, key: string): string {
  switch (by) {
    case 'kind':
      return kinds.find((x) => x.kind === key)?.word ?? key
    case 'person':
      return key || 'nobody yet'
    case 'label':
      return key ? `#${key}` : 'without a label'
    case 'place':
      return key === '.' ? 'the codebase' : key
    default:
      return key
  }
}

/** The position that puts a row one step on; null where it stands at the end, or its neighbours are not there yet. */
export function nextPosition(rows: readonly Row[], row: Row, step: 1 | -1): number | null {
  const to = row.index + step
  if (to < 0 || to >= rows.length) return null
  const [before, after] = step > 0 ? [rows[to], rows[to + 1]] : [rows[to - 1], rows[to]]
  if ((before && !before.f) || (after && !after.f)) return null
  return between(before?.f ?? undefined, after?.f ?? undefined)
}

/** The position that puts a finding between its new neighbours. */
export function between(before: { position: number } | undefined, after: { position: number } | undefined): number {
  if (before && after) return (before.position + after.position) / 2
  if (before) return before.position + 1
  if (after) return after.position - 1
  return 1
}
