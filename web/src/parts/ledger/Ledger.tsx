import {
  createSortedRowModel,
  rowSortingFeature,
  sortFn_alphanumeric,
  tableFeatures,
  useTable,
  type ColumnDef,
} from '@tanstack/react-table'
import { useMemo, useRef, useState, type CSSProperties } from 'react'
import { figure } from '../../theme/ink'
import { useEntering } from '../gate'
import { rowId, type Column, type LedgerProps } from './column'
import { FlowRows } from './FlowRows'
import { resorted, type Sorting } from './moves'
import { useRoving } from './roving'
import { VirtualRows } from './VirtualRows'
import './ledger.css'

export type { Column, Tree } from './column'

const features = tableFeatures({
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
  sortFns: { alphanumeric: sortFn_alphanumeric },
})

/** The table, list or tree behind every list of rows: sorted, folded, moved in by keys, at any size. */
export function Ledger<R>(p: LedgerProps<R>) {
  const box = useRef<HTMLDivElement>(null)
  useEntering(p.focus)
  const rows = useRows(p)
  const [more, setMore] = useState(0)
  const shown = p.first === undefined ? rows : rows.slice(0, p.first + more)
  const at = shown.findIndex((r) => p.idOf(r) === p.picked)
  const [scrollTo, setScrollTo] = useState<((index: number) => void) | null>(null)
  const press = useRoving({ p, rows: shown, at, box, scrollTo })
  const tracks = { '--tracks': p.columns.map((c) => c.width).join(' ') } as CSSProperties
  const body = { p, rows: shown, at }
  return (
    <>
      <div
        ref={box}
        className={p.first === undefined ? 'ruled own' : 'ruled flow'}
        role={p.tree ? 'treegrid' : 'grid'}
        aria-label={p.label}
        aria-rowcount={rows.length + 1}
        tabIndex={0}
        data-focus={p.focus ? '' : undefined}
        aria-activedescendant={at >= 0 ? rowId(p.label, at) : undefined}
        onKeyDown={press}
        style={tracks}
      >
        <Head columns={p.columns} sorting={p.sorting ?? null} onSort={p.onSort} />
        {p.first === undefined ? <VirtualRows {...body} box={box} onScroller={setScrollTo} /> : <FlowRows {...body} />}
      </div>
      {shown.length < rows.length && (
        <button type="button" className="quiet" onClick={() => setMore((n) => n + 200)}>
          {figure(shown.length)} of {figure(rows.length)}: show {rows.length - shown.length > 200 ? '200 more' : 'all'}
        </button>
      )}
    </>
  )
}

/** The rows in the order they are shown in. */
function useRows<R>(p: LedgerProps<R>): readonly R[] {
  const { rows, sorted, sorting } = p
  const columns = useMemo<ColumnDef<typeof features, { r: R }>[]>(
    () =>
      p.columns
        .filter((c) => c.value)
        .map((c) => ({ id: c.id, accessorFn: ({ r }: { r: R }) => c.value?.(r), sortFn: 'alphanumeric' as const })),
    [p.columns],
  )
  const [by, down] = sorted || !sorting ? ['', false] : [sorting.by, sorting.down]
  // Rows that come in their order are no business of the table's.
  const data = useMemo(() => (by ? rows.map((r) => ({ r })) : []), [by, rows])
  const state = useMemo(() => ({ sorting: by ? [{ id: by, desc: down }] : [] }), [by, down])
  const table = useTable({ features, columns, data, state })
  const model = table.getRowModel().rows
  return useMemo(() => (by ? model.map((m) => m.original.r) : rows), [by, model, rows])
}

function Head<R>({
  columns,
  sorting,
  onSort,
}: {
  columns: readonly Column<R>[]
  sorting: Sorting | null
  onSort?: (s: Sorting) => void
}) {
  return (
    <div className="rrow head" role="row">
      {columns.map((c) => {
        const on = sorting?.by === c.id
        const sortable = onSort && c.value
        return (
          <span
            key={c.id}
            role="columnheader"
            aria-sort={on ? (sorting.down ? 'descending' : 'ascending') : sortable ? 'none' : undefined}
            className={`${c.right ? 'r' : 'l'} c-${c.id}`}
            title={c.hint}
          >
            {sortable ? (
              <button type="button" tabIndex={-1} onClick={() => onSort(resorted(sorting, c.id, c.right ?? false))}>
                {c.title}
                {on ? (sorting.down ? ' ↓' : ' ↑') : ''}
              </button>
            ) : (
              c.title
            )}
          </span>
        )
      })}
    </div>
  )
}
