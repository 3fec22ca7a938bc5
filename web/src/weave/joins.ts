import type { Grid } from '../api/types'

export interface Joined {
  cell: Grid['cells'][number]
  /** It shares its folder with the cell before, after, above or below it. */
  left: boolean
  right: boolean
  up: boolean
  down: boolean
}

/** The cells by role and feature, each with the sides at which it is joined. */
export function joined(grid: Grid): (Joined | null)[][] {
  const rows: (Joined | null)[][] = grid.roles.map(() => grid.features.map(() => null))
  for (const cell of grid.cells) {
    const row = rows[cell.role]
    if (row) row[cell.feature] = { cell, left: false, right: false, up: false, down: false }
  }
  rows.forEach((row, r) => {
    row.forEach((c, f) => {
      if (!c) return
      c.left = c.cell.left
      c.right = !!row[f + 1]?.cell.left
      c.up = c.cell.up
      c.down = !!rows[r + 1]?.[f]?.cell.up
    })
  })
  return rows
}

/** A sentence on how files lie together. */
export function cutSentence(cut: { label: string; value: number | null }): string {
  switch (cut.label) {
    case 'by feature':
      return 'Cut by feature: what is about the same lies together.'
    case 'by feature, kinds inside':
      return 'Cut by feature, and by kind inside each.'
    case 'by kind':
      return 'Cut by kind: what is of the same technical kind lies together, and each feature is spread.'
    case 'mixed':
      return 'Cut neither way: partly by feature, partly by kind.'
    default:
      return 'Too little to tell how it is cut.'
  }
}

/** The folders that features stand together by, with how many columns each has. */
export function grouped(features: Grid['features']): { name: string; from: number; n: number }[] {
  const out: { name: string; from: number; n: number }[] = []
  features.forEach((f, i) => {
    const last = out[out.length - 1]
    if (last && last.name === f.group) last.n++
    else out.push({ name: f.group, from: i, n: 1 })
  })
  return out
}

/** What all names of groups begin with up to a dash or a dot, where that is something: heads have no room to repeat it. */
export function commonStart(names: readonly string[]): string {
  const told = names.filter((n) => n !== '')
  const [first = '', ...others] = told
  if (told.length < 3) return ''
  for (let at = first.length - 1; at > 0; at--) {
    const start = first.slice(0, at)
    if (/[-._]$/.test(start) && others.every((n) => n.startsWith(start) && n.length > start.length)) return start
  }
  return ''
}

/** Widths in px: of the names of rows, and of a column at its narrowest and widest. */
const nameWidth = 128
const narrowest = 30
const widest = 64

/** How many columns fit beside the names of the rows, and how wide each is. */
export function columnsIn(width: number, count: number): { fit: number; columnWidth: number } {
  const room = Math.max(0, width - nameWidth)
  const fit = Math.max(3, Math.min(count, Math.floor(room / narrowest)))
  return { fit, columnWidth: Math.max(narrowest, Math.min(widest, Math.floor(room / Math.max(1, fit)))) }
}

/**
 * As much of a grid as fits a width: the largest features, in the order they
 * stand in, or those with words in their name. `left` is how many are left out.
 */
export function fitting(grid: Grid, width: number, words: string): { grid: Grid; left: number; columnWidth: number } {
  const w = words.toLowerCase()
  const passing = grid.features.map((f, i) => ({ f, i })).filter(({ f }) => !w || (f.name || 'shared').includes(w))
  const { fit, columnWidth } = columnsIn(width, passing.length)
  const largest = new Set(
    [...passing]
      .sort((a, b) => b.f.lines - a.f.lines)
      .slice(0, fit)
      .map(({ i }) => i),
  )
  const kept = passing.filter(({ i }) => largest.has(i))
  if (kept.length === grid.features.length) return { grid, left: 0, columnWidth }
  const at = new Map(kept.map(({ i }, n) => [i, n]))
  const cells = grid.cells.flatMap((c) => {
    const feature = at.get(c.feature)
    if (feature === undefined) return []
    // A cell whose neighbour is left out joins it no more.
    return [{ ...c, feature, left: c.left && at.get(c.feature - 1) === feature - 1 }]
  })
  return { grid: { ...grid, features: kept.map(({ f }) => f), cells }, left: passing.length - kept.length, columnWidth }
}

/** The features whose columns fit a width, the one that is open always among them. */
export function inSight<T>(all: readonly T[], open: T | undefined, width: number): { shown: T[]; column: number } {
  const { fit, columnWidth } = columnsIn(width, all.length)
  const shown = all.slice(0, fit)
  if (open && all.includes(open) && !shown.includes(open)) shown[shown.length - 1] = open
  return { shown, column: columnWidth }
}
