import { counted, figure } from '../theme/ink'
import { nameOf } from '../place/place'
import type { Joined } from './joins'

/** Where a role and a feature meet: how much there is, and in which folder. */
export function CellBox({
  at,
  cell,
  gap,
  most,
  picked,
  role,
  feature,
  onPick,
}: {
  at: string
  cell: Joined | null
  gap: boolean
  most: number
  picked: boolean
  role: string
  feature: string
  onPick: (first: string) => void
}) {
  if (!cell)
    return (
      <td data-cell={at} className={`${gap ? 'gap' : ''} ${picked ? 'picked' : ''}`}>
        {gap && <span className="hidden">no {role}, which most features have</span>}
      </td>
    )
  const c = cell.cell
  const joins = [cell.left && 'left', cell.right && 'right', cell.up && 'up', cell.down && 'down'].filter(Boolean).join(' ')
  return (
    <td data-cell={at} className={picked ? 'picked' : ''}>
      <button
        type="button"
        tabIndex={-1}
        className={`cell ${joins}`}
        title={`${feature}, ${role}: ${counted(c.files, 'file')}, ${figure(c.lines)} lines in ${c.folder}`}
        onClick={() => onPick(c.first)}
      >
        <span className="bar" style={{ height: `${8 + 22 * Math.sqrt(c.lines / most)}px` }}>
          {/* What is assumed is paler. */}
          <i style={{ width: `${(100 * (c.lines - c.assumed)) / Math.max(1, c.lines)}%` }} />
        </span>
        <span className="n">{c.files}</span>
        {!cell.left && !cell.up && <span className="folder">{nameOf(c.folder)}</span>}
      </button>
    </td>
  )
}
