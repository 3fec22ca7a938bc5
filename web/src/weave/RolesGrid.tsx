import { useEffect, useRef } from 'react'
import type { Grid } from '../api/types'
import { inField, useEntering } from '../parts/gate'
import { useWhere } from '../place/place'
import { counted } from '../theme/ink'
import { roleLook, roleOrder } from '../theme/roles'
import { CellBox } from './CellBox'
import { commonStart, grouped, joined } from './joins'

/** Roles down, features across. What is picked narrows every other view. */
export function RolesGrid({
  grid,
  whole,
  atRole,
  feature,
  columnWidth,
}: {
  /** What is shown of the grid. */
  grid: Grid
  whole: Grid
  atRole: number
  feature: string
  columnWidth: number
}) {
  const { show } = useWhere()
  const rows = joined(grid)
  const most = Math.max(1, ...whole.cells.map((c) => c.lines))
  const atFeature = feature ? grid.features.findIndex((f) => (f.name || '-') === feature) : -1
  const groups = grouped(grid.features)
  const start = commonStart(groups.map((g) => g.name))
  const table = useRef<HTMLTableElement>(null)
  useEntering(true)
  const go = (r: number, f: number, first: string) =>
    show({
      role: grid.by_position ? '' : (grid.roles[r] ?? ''),
      feature: f < 0 ? '' : grid.features[f]?.name || '-',
      pick: first,
    })
  // Where arrows have gone before the page was drawn anew: keys come faster.
  const ahead = useRef<[number, number]>(null)
  useEffect(() => {
    if (ahead.current?.[0] === atRole && ahead.current[1] === atFeature) ahead.current = null
  }, [atRole, atFeature])
  const choose = (r: number, f: number, first = '') => {
    ahead.current = null
    if (r === atRole && f === atFeature) show({ role: '', feature: '', pick: '' })
    else go(r, f, first)
  }
  const press = (e: React.KeyboardEvent) => {
    if (e.ctrlKey || e.metaKey || e.altKey || inField(e.target)) return
    const step = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[e.key]
    if (!step) return
    e.preventDefault()
    const [fromRole, fromFeature] = ahead.current ?? [atRole, atFeature]
    const r = Math.max(0, Math.min(grid.roles.length - 1, Math.max(0, fromRole) + (step[0] ?? 0)))
    const f = Math.max(0, Math.min(grid.features.length - 1, Math.max(0, fromFeature) + (step[1] ?? 0)))
    if (r !== fromRole || f !== fromFeature) {
      ahead.current = [r, f]
      go(r, f, rows[r]?.[f]?.cell.first ?? '')
    }
    table.current?.querySelector(`[data-cell="${r},${f}"]`)?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
  }
  return (
    <div className="grid" onKeyDown={press}>
      <table
        ref={table}
        tabIndex={0}
        data-focus
        className={columnWidth < 44 ? 'narrow' : undefined}
        style={{ '--column': `${columnWidth}px` } as React.CSSProperties}
        aria-label="Roles by features; arrows move, the margin tells of what is picked"
      >
        <thead>
          {groups.length > 1 && (
            <tr className="groups">
              <td />
              {groups.map((g) => (
                <td key={g.from} colSpan={g.n} title={g.name ? `most of these features lies in ${g.name}` : undefined}>
                  <span>{g.name.slice(start.length)}</span>
                </td>
              ))}
            </tr>
          )}
          <tr>
            <td />
            {grid.features.map((f, i) => (
              <th key={f.name} scope="col" className={i === atFeature && atRole < 0 ? 'picked' : ''}>
                <button
                  type="button"
                  tabIndex={-1}
                  title={
                    f.name
                      ? `${f.name}: ${counted(f.files, 'file')} in ${counted(f.scatter, 'folder')}`
                      : 'files of no single feature'
                  }
                  onClick={() => choose(-1, i)}
                >
                  {f.name || 'shared'}
                </button>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {grid.roles.map((role, r) => (
            <tr key={role} className={r === atRole && atFeature < 0 ? 'picked' : ''}>
              <th scope="row">
                <button type="button" tabIndex={-1} title={role} disabled={grid.by_position} onClick={() => choose(r, -1)}>
                  {!grid.by_position && <i className={roleLook(roleOrder.indexOf(role))} aria-hidden="true" />}
                  {grid.by_position ? role.split(':')[0] : role}
                </button>
              </th>
              {grid.features.map((f, i) => (
                <CellBox
                  key={f.name}
                  at={`${r},${i}`}
                  cell={rows[r]?.[i] ?? null}
                  gap={f.missing.includes(r)}
                  most={most}
                  picked={r === atRole && i === atFeature}
                  role={role}
                  feature={f.name || 'shared'}
                  onPick={(first) => choose(r, i, first)}
                />
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
