import { memo } from 'react'
import { rowId, type LedgerProps } from './column'

interface LineProps<R> {
  p: LedgerProps<R>
  r: R
  index: number
  picked: boolean
  /** Where it stands in a box that scrolls, and how tall it is, in px. */
  start?: number
  size?: number
}

/** One row of a ledger. While a long list is scrolled, only rows that come into sight are drawn anew. */
export const RowLine = memo(OneLine) as typeof OneLine

function OneLine<R>({ p, r, index, picked, start, size }: LineProps<R>) {
  const open = p.tree?.open(r)
  return (
    <div
      id={rowId(p.label, index)}
      role="row"
      aria-level={p.tree ? p.tree.depth(r) + 1 : undefined}
      aria-expanded={open}
      aria-selected={picked}
      aria-rowindex={index + 2}
      className={`rrow${picked ? ' picked' : ''} ${p.classOf?.(r) ?? ''}`}
      style={start === undefined ? undefined : { transform: `translateY(${start}px)`, height: size }}
      onClick={() => p.onPick(p.idOf(r), r)}
    >
      {p.columns.map((c) => (
        <span key={c.id} role="gridcell" className={`${c.right ? 'r' : 'l'} c-${c.id}`}>
          {c.cell(r)}
        </span>
      ))}
    </div>
  )
}
