import type { Role, Row } from '../api/types'
import { roleLook, roleName } from '../theme/roles'
import { figure } from '../theme/ink'

/** What a folder holds, as a bar: the width of a part is its share of lines. */
export function RoleBar({ row, roles, most }: { row: Row; roles: Role[]; most: number }) {
  const judged = row.roles.reduce((a, [, n]) => a + (n ?? 0), 0)
  // What nobody here wrote, or what is out of scope, in one pattern, and never longer than the rest.
  const other = Math.max(0, row.lines - judged)
  const total = judged + Math.min(other, Math.max(judged, 1))
  if (judged === 0 && other === 0)
    return <span className="rolebar" title={row.skipped ? `${row.skipped}, not judged` : 'nothing judged'} />
  // The bar's own width tells the size, dampened so that small ones stay seen.
  const width = 22 + 78 * Math.sqrt(Math.min(1, judged / Math.max(1, most)))
  const words = [
    ...row.roles.map(([i, n]) => `${roleName(roles, i ?? -1)} ${figure(n ?? 0)}`),
    ...(other > 0 ? [`not judged ${figure(other)}`] : []),
  ].join(', ')
  return (
    <span className="rolebar" role="img" aria-label={`lines by role: ${words}`} title={words}>
      <span style={{ width: `${width}%` }}>
        {row.roles.map(([i, n]) => (
          <i key={i} className={roleLook(i ?? -1)} style={{ width: `${(100 * (n ?? 0)) / total}%` }} />
        ))}
        {other > 0 && <i className="role foreign" style={{ flex: 1 }} />}
      </span>
    </span>
  )
}
