import type { ReactNode } from 'react'
import type { Sorting } from './moves'

/** One column of a ledger. */
export interface Column<R> {
  id: string
  title: ReactNode
  hint?: string
  /** Its track in the grid: a length, or minmax(…). */
  width: string
  right?: boolean
  /** What it is sorted by; without it the head is no button. Figures begin with the largest. */
  value?: (r: R) => string | number
  cell: (r: R) => ReactNode
}

/** Rows that hold others. */
export interface Tree<R> {
  depth: (r: R) => number
  /** Whether it is unfolded; undefined for one that holds nothing. */
  open: (r: R) => boolean | undefined
  onFold: (r: R) => void
  /** The row around a row, "" for none. */
  parent: (r: R) => string
}

export interface LedgerProps<R> {
  /** What it is a list of, for those who hear it. */
  label: string
  columns: readonly Column<R>[]
  rows: readonly R[]
  idOf: (r: R) => string
  /** The row under the cursor, "" for none. */
  picked: string
  onPick: (id: string, r: R) => void
  onOpen?: (r: R) => void
  sorting?: Sorting | null
  onSort?: (s: Sorting) => void
  /** Whether the rows come in their order already. */
  sorted?: boolean
  tree?: Tree<R>
  /** Height of a row in px. */
  heightOf?: (r: R) => number
  classOf?: (r: R) => string
  /** What stands above the first row of a group. */
  heading?: (r: R, before: R | undefined) => ReactNode
  /** What stands below a row that is opened in its place. */
  below?: (r: R) => ReactNode
  /** Keys of its own; it reports whether it took one. */
  onKey?: (e: React.KeyboardEvent, r: R | undefined) => boolean
  /** Rows in the flow of the page, so many at first; else they scroll in a box of their own, however many they are. */
  first?: number
  /** Whether it takes the focus when its view opens. */
  focus?: boolean
  /** Told which rows are in sight, for those that are fetched in stretches. */
  onSight?: (from: number, to: number) => void
  /** Width of the box in px, told when it changes. */
  onWidth?: (px: number) => void
}

/** The id of a row's element, for who hears where the cursor is. */
export const rowId = (label: string, index: number) => `${label.replace(/\W+/g, '-')}-row-${index}`
