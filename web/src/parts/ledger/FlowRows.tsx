import { Fragment } from 'react'
import type { LedgerProps } from './column'
import { RowLine } from './RowLine'

/** Rows in the flow of the page. */
export function FlowRows<R>({ p, rows, at }: { p: LedgerProps<R>; rows: readonly R[]; at: number }) {
  return (
    <div role="rowgroup">
      {rows.map((r, i) => (
        <Fragment key={p.idOf(r)}>
          {p.heading?.(r, rows[i - 1])}
          <RowLine p={p} r={r} index={i} picked={i === at} />
          {p.below?.(r)}
        </Fragment>
      ))}
    </div>
  )
}
