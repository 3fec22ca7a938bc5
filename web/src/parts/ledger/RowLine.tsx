import type { CSSProperties } from 'react'
import { rowId, type LedgerProps } from './column'

interface LineProps<R> {
  p: LedgerProps<R>
  r: R
  index: number
  picked: boolean
  style?: CSSProperties
}

/** One row of a ledger. */
export function RowLine<R>({ p, r, index, picked, style }: LineProps<R>) {
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
      style={style}
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
