import type { Sorting } from '../parts/ledger/moves'

/** What a list of parts can be narrowed to. */
export const narrowings = [
  { id: 'duties', text: 'several duties', hint: 'three duties or more' },
  { id: 'twins', text: 'with twins', hint: 'nearly the same stands elsewhere' },
  { id: 'unused', text: 'used by nobody', hint: 'no definition elsewhere was found that uses it' },
  { id: 'untested', text: 'reached by no test', hint: 'over calls that could be followed' },
] as const

export type Narrowed = (typeof narrowings)[number]['id']

const sorts = ['weight', 'name', 'lines', 'takes', 'offers', 'duties', 'uses', 'users', 'twins'] as const
export type Sort = (typeof sorts)[number]

/** Which parts an address asks for, and in which order. */
export interface AskedParts {
  words: string
  kind: string
  only: Narrowed | ''
  sort: Sort
  up: boolean
}

export function askedFrom(q: URLSearchParams): AskedParts {
  const [by, way] = (q.get('sort') ?? '').split(' ')
  const sort = sorts.find((s) => s === by) ?? 'weight'
  return {
    words: q.get('words') ?? '',
    kind: q.get('kind') ?? '',
    only: narrowings.find((n) => n.id === q.get('only'))?.id ?? '',
    sort,
    // Names begin with A, figures with the largest; "up" turns either round.
    up: sort !== 'weight' && way === (sort === 'name' ? 'down' : 'up'),
  }
}

/** The order as the heads of the columns show it, and as an address has it. */
export const sortingOf = (a: AskedParts): Sorting | null =>
  a.sort === 'weight' ? null : { by: a.sort, down: a.sort === 'name' ? a.up : !a.up }

export const sortText = (s: Sorting): string => `${s.by} ${s.down ? 'down' : 'up'}`

/** The letters that stand for duties where there is little room. */
export const dutyMark: Record<string, string> = {
  draws: 'D',
  'keeps state': 'K',
  'asks over HTTP': 'H',
  'reads or writes a store': 'S',
  'answers requests': 'A',
  'sends or receives messages': 'M',
  'holds styles': 'L',
  decides: 'B',
}

/** How the kinds are called on the screen, in their order. */
export const kindNames: readonly (readonly [string, string])[] = [
  ['component', 'components'],
  ['class', 'classes'],
  ['interface', 'interfaces'],
  ['type', 'types'],
  ['functions', 'files of functions'],
]

/** Where a part stands, seen from a folder; the folder alone where the file is called as the part. */
export function placeOf(p: { path: string; name: string }, at: string): string {
  const inside = at !== '.' && p.path.startsWith(`${at}/`) ? p.path.slice(at.length + 1) : p.path
  const cut = inside.lastIndexOf('/')
  const file = inside.slice(cut + 1)
  const said = file === p.name || file.slice(0, file.lastIndexOf('.')) === p.name
  return cut > 0 && said ? inside.slice(0, cut) : inside
}
