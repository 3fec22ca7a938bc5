import { flipped } from '../place/place'
import type { Column } from './tree'

export interface ColumnLook {
  id: Exclude<Column, 'name' | 'read'>
  title: string
  hint: string
  /** In pixels. */
  width: number
  /** Shown until somebody chooses. */
  first: boolean
}

/** The figures of the ledger, in the order they stand in. */
export const columns: readonly ColumnLook[] = [
  { id: 'lines', title: 'lines', hint: 'lines of all files below', width: 64, first: true },
  { id: 'files', title: 'files', hint: 'files below', width: 48, first: true },
  { id: 'in', title: 'in', hint: 'dependencies of others on what lies below', width: 44, first: true },
  { id: 'out', title: 'out', hint: 'dependencies of what lies below on others', width: 44, first: true },
  { id: 'smells', title: 'smells', hint: 'smells below; the ink tells the strongest', width: 54, first: true },
  { id: 'findings', title: 'noted', hint: 'findings below', width: 48, first: true },
  { id: 'changed', title: 'changed', hint: 'when a file below was changed last', width: 72, first: true },
  { id: 'changes', title: 'changes', hint: 'how often files below were changed', width: 62, first: false },
  { id: 'authors', title: 'people', hint: 'how many people changed them', width: 52, first: false },
]

/** The columns an address asks for; without one those shown at first. */
export function chosenColumns(asked: string | null): readonly ColumnLook[] {
  if (!asked) return columns.filter((c) => c.first)
  const ids = new Set(asked.split(','))
  return columns.filter((c) => ids.has(c.id))
}

/** What an address asks for when a column is taken in or out: the columns in their usual order. */
export function flippedColumn(asked: string | null, id: ColumnLook['id']): string {
  const next = new Set(
    flipped(
      chosenColumns(asked).map((c) => c.id),
      id,
    ),
  )
  const ids = columns.filter((c) => next.has(c.id)).map((c) => c.id)
  return ids.length > 0 ? ids.join(',') : 'none'
}

/** What names, purposes and the role bar need beside the figures, in px. */
const named = 410

/** As many of the columns as leave room for the names; the first ones tell most. */
export function columnsIn(chosen: readonly ColumnLook[], width: number): readonly ColumnLook[] {
  const weight: Partial<Record<ColumnLook['id'], number>> = { lines: 0, smells: 1, findings: 2 }
  const byWorth = [...chosen].sort((a, b) => (weight[a.id] ?? 3) - (weight[b.id] ?? 3))
  const kept = new Set<ColumnLook>()
  let room = width - named
  for (const c of byWorth) {
    room -= c.width + 8
    if (room < 0 && kept.size > 0) break
    kept.add(c)
  }
  return chosen.filter((c) => kept.has(c))
}
