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
