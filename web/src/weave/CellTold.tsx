import type { Grid } from '../api/types'
import { PlaceLink } from '../place/PlaceLink'
import { counted, figure } from '../theme/ink'

/** What lies in a cell that is picked. */
export function CellTold({ grid, cell }: { grid: Grid; cell: Grid['cells'][number] }) {
  return (
    <section className="told">
      <h2>
        {grid.features[cell.feature]?.name || 'shared'} · {grid.roles[cell.role]}
      </h2>
      <p>
        {counted(cell.files, 'file')}, {figure(cell.lines)} lines
        {cell.folders > 1 ? `, in ${figure(cell.folders)} folders, most in ` : ', in '}
        <PlaceLink path={cell.folder} />
        {cell.assumed > 0 && (
          <span className="unsure">
            {' '}
            The role of {cell.assumed === cell.lines ? 'all' : `${figure(cell.assumed)}`} of these lines is assumed.
          </span>
        )}
      </p>
      <ul className="places">
        {cell.paths.map((p) => (
          <li key={p}>
            <PlaceLink path={p} />
          </li>
        ))}
      </ul>
      {cell.files > cell.paths.length && (
        <p className="faint">
          {cell.paths.length} of {figure(cell.files)}; the other views are narrowed to all of them.
        </p>
      )}
    </section>
  )
}
