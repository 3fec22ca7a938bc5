import { useVirtualizer } from '@tanstack/react-virtual'
import { useEffect, useRef, type RefObject } from 'react'
import { useWidth } from '../width'
import type { LedgerProps } from './column'
import { RowLine } from './RowLine'

/** Height of a row where nothing else is said, in px. */
const rowHeight = 28

/** Rows in a box that scrolls: only those in sight are drawn. */
export function VirtualRows<R>({
  p,
  rows,
  at,
  box,
  onScroller,
}: {
  p: LedgerProps<R>
  rows: readonly R[]
  at: number
  box: RefObject<HTMLDivElement | null>
  onScroller: (to: () => (index: number) => void) => void
}) {
  const { heightOf, onSight, onWidth } = p
  const grows = p.heading !== undefined || p.below !== undefined
  const list = useVirtualizer({
    count: rows.length,
    getScrollElement: () => box.current,
    estimateSize: (i) => (rows[i] && heightOf ? heightOf(rows[i]) : rowHeight),
    getItemKey: (i) => (rows[i] ? p.idOf(rows[i]) : i),
    overscan: 12,
  })
  useEffect(() => {
    onScroller(() => (index: number) => list.scrollToIndex(index, { align: 'auto' }))
  }, [list, onScroller])
  // What an address picks is in sight when the list opens.
  const opened = useRef(false)
  useEffect(() => {
    if (opened.current || at <= 0) return
    opened.current = true
    list.scrollToIndex(at, { align: 'center' })
  }, [at, list])
  useEffect(() => {
    if (heightOf) list.measure()
  }, [list, heightOf, rows])
  useWidth(box, onWidth)
  const items = list.getVirtualItems()
  const [from, to] = [items[0]?.index ?? 0, items[items.length - 1]?.index ?? 0]
  useEffect(() => onSight?.(from, to), [from, to, onSight])
  return (
    <div className="rbody" role="rowgroup" style={{ height: list.getTotalSize() }}>
      {items.map((v) => {
        const r = rows[v.index]
        if (r === undefined) return null
        if (!grows)
          return <RowLine key={v.key} p={p} r={r} index={v.index} picked={v.index === at} start={v.start} size={v.size} />
        return (
          <div
            key={v.key}
            ref={list.measureElement}
            data-index={v.index}
            role="presentation"
            className="rgrown"
            style={{ transform: `translateY(${v.start}px)` }}
          >
            {p.heading?.(r, rows[v.index - 1])}
            <RowLine p={p} r={r} index={v.index} picked={v.index === at} />
            {p.below?.(r)}
          </div>
        )
      })}
    </div>
  )
}
