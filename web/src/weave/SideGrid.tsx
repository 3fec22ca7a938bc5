import { useMemo } from 'react'
import type { Grid } from '../api/types'
import { Ledger, type Column } from '../parts/ledger/Ledger'
import { sortingFrom, sortingText } from '../parts/ledger/moves'
import { useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'
import { roleLook, roleOrder } from '../theme/roles'

interface Row {
  f: Grid['features'][number]
  cells: (Grid['cells'][number] | undefined)[]
}

/** Every feature as a row, its roles across: the grid turned on its side, for any number of features. */
export function SideGrid({ grid, words }: { grid: Grid; words: string }) {
  const { where, query, show } = useWhere()
  const rows = useMemo<Row[]>(() => {
    const all = grid.features.map((f): Row => ({ f, cells: grid.roles.map(() => undefined) }))
    for (const c of grid.cells) {
      const row = all[c.feature]
      if (row) row.cells[c.role] = c
    }
    const w = words.toLowerCase()
    return all.filter((r) => (r.f.name || 'shared').includes(w)).sort((a, b) => b.f.lines - a.f.lines)
  }, [grid, words])
  const columns = useMemo<Column<Row>[]>(
    () => [
      {
        id: 'name',
        title: 'feature',
        width: 'minmax(110px, 1fr)',
        value: (r) => r.f.name,
        cell: (r) => (
          <span title={`${counted(r.f.files, 'file')} in ${counted(r.f.scatter, 'folder')}`}>{r.f.name || 'shared'}</span>
        ),
      },
      { id: 'lines', title: 'lines', width: '58px', right: true, value: (r) => r.f.lines, cell: (r) => figure(r.f.lines) },
      {
        id: 'folders',
        title: 'folders',
        hint: 'in how many folders it lies',
        width: '54px',
        right: true,
        value: (r) => r.f.scatter,
        cell: (r) => (r.f.name ? figure(r.f.scatter) : ''),
      },
      ...grid.roles.map((role, i): Column<Row> => ({
        id: role,
        title: grid.by_position ? (
          role.split(':')[0]
        ) : (
          <i className={`${roleLook(roleOrder.indexOf(role))} headrole`} role="img" aria-label={role} />
        ),
        hint: role,
        width: 'minmax(22px, 46px)',
        right: true,
        value: (r) => r.cells[i]?.lines ?? 0,
        cell: (r) => {
          const c = r.cells[i]
          if (c)
            return (
              <span
                className={c.assumed === c.lines ? 'faint' : ''}
                title={`${role}: ${counted(c.files, 'file')}, ${figure(c.lines)} lines`}
              >
                {figure(c.files)}
              </span>
            )
          return r.f.missing.includes(i) ? (
            <span className="gapmark" title={`no ${role}, which most features have`}>
              ×
            </span>
          ) : (
            ''
          )
        },
      })),
    ],
    [grid],
  )
  return (
    <Ledger
      label="Features by roles"
      columns={columns}
      rows={rows}
      idOf={(r) => r.f.name || '-'}
      picked={where.feature}
      onPick={(id) => show({ feature: id, role: '' })}
      sorting={sortingFrom(query.get('sort'))}
      onSort={(s) => show({ sort: sortingText(s) })}
      first={60}
      focus
    />
  )
}
