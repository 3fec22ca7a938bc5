import type { Row } from '../api/types'

export type Column =
  'name' | 'lines' | 'files' | 'in' | 'out' | 'smells' | 'findings' | 'read' | 'changes' | 'authors' | 'changed'

export interface Wish {
  sort: Column
  down: boolean
  filter: string
  only: '' | 'smelly' | 'unread' | 'own'
  /** Folders whose folding differs from what it is by itself. */
  toggled: ReadonlySet<string>
  /** Folders below this depth are folded by themselves. */
  depth: number
}

export interface Shown {
  row: Row
  /** The outermost of the folders that stand in this row: where each holds but the next, they are one step. */
  first: string
  /** How many folders or files stand in it. */
  count: number
  open: boolean
  parent: boolean
}

/** To what depth a ledger is unfolded at first: as far as it fits in about most rows. */
export function firstDepth(rows: readonly Row[], most: number): number {
  const counts: number[] = []
  for (const r of rows) if (!r.file) counts[r.depth] = (counts[r.depth] ?? 0) + 1
  let total = 0
  let d = 0
  for (; d < counts.length; d++) {
    total += counts[d] ?? 0
    if (total > most && d > 1) break
  }
  return Math.max(1, d - 1)
}

export const rowHeight = 28
const tallRow = 42

/** Whether a purpose needs a second line beside its name; widths in pixels, measured at the face's size. */
export function needsTwoLines(r: Row, width: number): boolean {
  const room = width - Math.min(r.depth, 10) * 14 - 26 - (r.name.length + (r.head ? r.head.length + 2 : 0)) * 7.9
  return r.purpose.length * 5.6 > room
}

export const heightOf = (r: Row, width: number): number => (needsTwoLines(r, width) ? tallRow : rowHeight)

const value = (r: Row, c: Column): number | string => {
  switch (c) {
    case 'name':
      return r.name.toLowerCase()
    case 'smells':
      return r.smells + r.strongest / 10
    default:
      return r[c]
  }
}

/**
 * The rows of a ledger in the order shown: siblings sorted, what is folded or
 * filtered out left away. A filter keeps the folders above what it finds.
 */
export function arrange(rows: readonly Row[], w: Wish): Shown[] {
  const top = rows[0]
  if (!top) return []
  const below = new Map<string, Row[]>()
  for (const r of rows.slice(1)) {
    const up = r.path.includes('/') ? r.path.slice(0, r.path.lastIndexOf('/')) : '.'
    const list = below.get(up)
    if (list) list.push(r)
    else below.set(up, [r])
  }
  const sign = w.down ? -1 : 1
  for (const list of below.values())
    list.sort((a, b) => {
      if (w.sort === 'name' && a.file !== b.file) return a.file ? 1 : -1
      const x = value(a, w.sort)
      const y = value(b, w.sort)
      return x < y ? -sign : x > y ? sign : a.path < b.path ? -1 : 1
    })
  const words = w.filter.toLowerCase()
  const fits = (r: Row) =>
    (!words || r.path.toLowerCase().includes(words) || r.purpose.toLowerCase().includes(words)) &&
    (w.only !== 'smelly' || r.smells > 0) &&
    (w.only !== 'own' || r.judged > 0) &&
    (w.only !== 'unread' || (r.read < 1 && r.judged > 0))
  const narrowed = words !== '' || w.only !== ''
  const keep = new Set<string>()
  if (narrowed)
    for (const r of rows) {
      if (!fits(r)) continue
      for (let p = r.path; !keep.has(p); p = p.includes('/') ? p.slice(0, p.lastIndexOf('/')) : '.') {
        keep.add(p)
        if (p === '.' || p === top.path) break
      }
    }
  const out: Shown[] = []
  // A folder that holds a single folder and nothing else stands in one row with
  // it; what is counted of the outer one counts for both.
  const joined = (r: Row): Row => {
    const [only, ...others] = below.get(r.path) ?? []
    if (!only || others.length > 0 || only.file || r.own > 0 || r === top) return r
    const inner = joined(only)
    return {
      ...inner,
      name: `${r.name}/${inner.name}`,
      ...(inner.purpose ? {} : { purpose: r.purpose, source: r.source }),
      smells: r.smells,
      strongest: r.strongest,
      findings: r.findings,
    }
  }
  const visit = (outer: Row, depth: number) => {
    if (narrowed && !keep.has(outer.path) && outer !== top) return
    const row = { ...joined(outer), depth }
    const mine = below.get(row.path) ?? []
    const byItself = narrowed ? true : depth < w.depth
    const open = mine.length > 0 && byItself !== w.toggled.has(row.path)
    const count = row.path === outer.path ? 1 : row.name.split('/').length
    out.push({ row, first: outer.path, count, open, parent: mine.length > 0 })
    if (open) for (const c of mine) visit(c, depth + 1)
  }
  visit(top, top.depth)
  return out
}

/** Paths as they stand in an address. */
export const listText = (paths: readonly string[]): string => [...paths].sort().map(encodeURIComponent).join(' ')

export const listFrom = (text: string | null): string[] => (text ?? '').split(' ').filter(Boolean).map(decodeURIComponent)

/** The row of a path, or of the nearest folder around it when it is folded away; -1 when there is none. */
export function nearestRow(shown: readonly Shown[], path: string): number {
  for (let p = path; ; p = p.includes('/') ? p.slice(0, p.lastIndexOf('/')) : '.') {
    const i = shown.findIndex((s) => s.row.path === p || (p.startsWith(s.first) && s.row.path.startsWith(`${p}/`)))
    if (i >= 0 || p === '.') return i
  }
}
