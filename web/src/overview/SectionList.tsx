import type { Section } from '../api/types'
import { PlaceLink } from '../place/PlaceLink'
import { counted, figure } from '../theme/ink'
import { roleName, roleOrder } from '../theme/roles'

/** The same as a list, for those who would rather read it or cannot see it. */
export function SectionList({ x }: { x: Section }) {
  return (
    <details className="equal">
      <summary>the same as a list</summary>
      <table className="plain">
        <thead>
          <tr>
            <th>part</th>
            <th>block, from the top</th>
            <th>mostly</th>
            <th>own lines</th>
          </tr>
        </thead>
        <tbody>
          {[...x.blocks]
            .sort((a, b) => a.part - b.part || a.row - b.row || b.lines - a.lines)
            .map((b) => (
              <tr key={b.path + b.name}>
                <td>{x.parts[b.part]?.name}</td>
                <td>
                  <PlaceLink path={b.path} as={b.together > 0 ? b.name : undefined} />
                  {b.ring && <small> in a ring</small>}
                  {b.breaches > 0 && <small> {figure(b.breaches)} against the charter</small>}
                </td>
                <td>{mostly(b.roles)}</td>
                <td>{figure(b.lines)}</td>
              </tr>
            ))}
        </tbody>
      </table>
      {x.ties.length > 0 && (
        <ul className="places">
          {x.ties.map((t, i) => (
            <li key={i}>
              <PlaceLink path={t.from} /> needs <PlaceLink path={t.to} />{' '}
              <small>
                {counted(t.count, 'time')}, {t.class}
                {t.breach && ', against the charter'}
                {t.ring && ', in a ring'}
              </small>
            </li>
          ))}
        </ul>
      )}
    </details>
  )
}

/** The role with the most lines. */
export function mostly(roles: { role: number; lines: number }[]): string {
  const most = roles.reduce<{ role: number; lines: number } | null>((best, r) => (best && best.lines >= r.lines ? best : r), null)
  return most ? roleName(roleOrder, most.role) : ''
}
