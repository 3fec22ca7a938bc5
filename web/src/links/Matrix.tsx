import { useMemo, useState, type ReactNode } from 'react'
import type { Bundle, Drawing as Data } from '../api/types'
import { Drawing } from '../parts/drawing/Drawing'
import { useWhere } from '../place/place'
import { counted, figure, shortPath } from '../theme/ink'
import { matrixOf, type Cell } from './look'

/** Size of a cell and room for the names, in px. */
const cell = 16
const room = 210
const head = 120

/** The ruled lines of n rows and n columns, as one path. */
const lines = (n: number) =>
  Array.from(
    { length: n + 1 },
    (_, i) => `M0 ${head + i * cell}h${room + n * cell}M${room + i * cell} ${head - 6}v${n * cell + 6}`,
  ).join('')

const told = (c: Cell) =>
  `${c.bundle.from} needs ${c.bundle.to}: ${figure(c.count)}${c.up ? ', in a ring' : ''}${c.broken ? ', against the charter' : ''}`

/** The cells. A title in each of hundreds is as much to lay out as they are: they share one, which speaks of the one pointed at. */
function Cells({ cells, onChoose }: { cells: readonly Cell[]; onChoose: (b: Bundle) => void }) {
  const [over, setOver] = useState<Cell>()
  const drawn = useMemo(
    () =>
      cells.map((c) => (
        <rect
          key={`${c.row} ${c.column}`}
          className={`mcell${c.up ? ' up' : ''}${c.broken ? ' broken' : ''}`}
          onClick={() => onChoose(c.bundle)}
          onPointerEnter={() => setOver(c)}
          x={room + c.column * cell + 1}
          y={head + c.row * cell + 1}
          width={cell - 2}
          height={cell - 2}
          fillOpacity={0.25 + Math.min(0.75, Math.log10(c.count + 1) / 2.5)}
        />
      )),
    [cells, onChoose],
  )
  return (
    <g>
      {over && <title>{told(over)}</title>}
      {drawn}
    </g>
  )
}

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
      <path className="lines" d={lines(n)} />
      {at >= 0 && (
        <>
          <rect className="band" x={0} y={head + at * cell} width={room + n * cell} height={cell} />
          <rect className="band" x={room + at * cell} y={head - 6} width={cell} height={n * cell + 6} />
        </>
      )}
      {m.boxes.map((b, i) => (
        <g key={b.path} className={i === at ? 'picked' : undefined} onClick={() => pick({ pick: b.path })}>
          <text x={room - 6} y={head + i * cell + 12} textAnchor="end">
            <title>{`${b.path}: ${counted(b.files, 'file')}`}</title>
            {shortPath(b.path, 26)}
          </text>
          <text transform={`translate(${room + i * cell + 12} ${head - 8}) rotate(-60)`}>{shortPath(b.path, 18)}</text>
        </g>
      ))}
      <path
        className="self"
        d={m.boxes.map((_, i) => `M${room + i * cell} ${head + i * cell}h${cell}v${cell}h${-cell}z`).join('')}
      />
      <Cells cells={m.cells} onChoose={onChoose} />
      <path
        className="cross"
        d={m.cells
          .filter((c) => c.broken)
          .map(
            (c) =>
              `M${room + c.column * cell + 3} ${head + c.row * cell + 3}l${cell - 6} ${cell - 6}m0 ${6 - cell}l${6 - cell} ${cell - 6}`,
          )
          .join('')}
      />
    </Drawing>
  )
}
