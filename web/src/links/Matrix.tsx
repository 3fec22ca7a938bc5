import { useMemo, type ReactNode } from 'react'
import type { Bundle, Drawing as Data } from '../api/types'
import { Drawing } from '../parts/drawing/Drawing'
import { useWhere } from '../place/place'
import { counted, figure, shortPath } from '../theme/ink'
import { matrixOf } from './look'

/** Size of a cell and room for the names, in px. */
const cell = 16
const room = 210
const head = 120

/** What needs what, row by column, ordered by level: what stands left of the diagonal is part of a ring. */
export function Matrix({
  d,
  shown,
  broken,
  list,
  onChoose,
}: {
  d: Data
  shown: readonly Bundle[]
  broken: ReadonlySet<string>
  list: ReactNode
  onChoose: (b: Bundle) => void
}) {
  const { where, pick } = useWhere()
  const m = useMemo(() => matrixOf(d, shown, broken), [d, shown, broken])
  const n = m.boxes.length
  const at = m.boxes.findIndex((b) => b.path === where.pick)
  const size = { width: room + n * cell + 90, height: head + n * cell + 10 }
  const press = (e: React.KeyboardEvent): boolean => {
    const step = { ArrowDown: 1, ArrowUp: -1, ArrowRight: 1, ArrowLeft: -1 }[e.key]
    if (!step || e.ctrlKey || e.metaKey || e.altKey) return false
    const next = m.boxes[Math.max(0, Math.min(n - 1, at + step))]
    if (next) pick({ pick: next.path })
    return true
  }
  const mark = (i: number) => (i === at ? 'picked' : undefined)
  return (
    <Drawing
      className="matrix"
      label="Matrix: the part of a row needs the part of a column; arrows move along the parts"
      {...size}
      most={1200}
      picked={at < 0 ? undefined : { x: 0, y: head + at * cell, w: room, h: cell }}
      onKey={press}
      list={list}
      focus
    >
      {m.boxes.map((b, i) => (
        <g key={b.path} className={mark(i)}>
          <rect className="band" x={0} y={head + i * cell} width={room + n * cell} height={cell} />
          <rect className="band" x={room + i * cell} y={head - 6} width={cell} height={n * cell + 6} />
          <text x={room - 6} y={head + i * cell + 12} textAnchor="end" onClick={() => pick({ pick: b.path })}>
            <title>{`${b.path}: ${counted(b.files, 'file')}`}</title>
            {shortPath(b.path, 26)}
          </text>
          <text transform={`translate(${room + i * cell + 12} ${head - 8}) rotate(-60)`} onClick={() => pick({ pick: b.path })}>
            {shortPath(b.path, 18)}
          </text>
          <rect className="self" x={room + i * cell} y={head + i * cell} width={cell} height={cell} />
        </g>
      ))}
      {m.cells.map((c) => (
        <g
          key={`${c.row} ${c.column}`}
          className={`mcell${c.up ? ' up' : ''}${c.broken ? ' broken' : ''}`}
          onClick={() => onChoose(c.bundle)}
        >
          <title>{`${c.bundle.from} needs ${c.bundle.to}: ${figure(c.count)}${c.up ? ', in a ring' : ''}${c.broken ? ', against the charter' : ''}`}</title>
          <rect
            x={room + c.column * cell + 1}
            y={head + c.row * cell + 1}
            width={cell - 2}
            height={cell - 2}
            fillOpacity={0.25 + Math.min(0.75, Math.log10(c.count + 1) / 2.5)}
          />
          {c.broken && (
            <path
              className="cross"
              d={`M${room + c.column * cell + 3} ${head + c.row * cell + 3}l${cell - 6} ${cell - 6}m0 ${6 - cell}l${6 - cell} ${cell - 6}`}
            />
          )}
        </g>
      ))}
    </Drawing>
  )
}
