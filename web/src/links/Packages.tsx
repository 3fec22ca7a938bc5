import { useState } from 'react'
import type { Dependencies as Data } from '../api/types'
import { PlaceLink } from '../place/PlaceLink'
import { figure } from '../theme/ink'

/** What comes from outside, most used first. */
export function Packages({ data }: { data: Data }) {
  const [all, setAll] = useState(false)
  if (data.packages.length === 0) return null
  const shown = all ? data.packages : data.packages.slice(0, 10)
  return (
    <section>
      <h2>
        Packages from outside <small>{figure(data.packages.length)}</small>
      </h2>
      <table className="plain packages">
        <thead>
          <tr>
            <th scope="col">package</th>
            <th scope="col">version</th>
            <th scope="col">files</th>
            <th scope="col">used in</th>
          </tr>
        </thead>
        <tbody>
          {shown.map((p) => (
            <tr key={p.name}>
              <td className="mono">{p.name}</td>
              <td
                className={p.versions.length > 1 ? 'mono warn' : 'mono'}
                title={p.versions.length > 1 ? 'asked for in several versions' : ''}
              >
                {p.versions.join(', ') || '—'}
              </td>
              <td>{p.files}</td>
              <td>
                {p.modules.slice(0, 4).join(', ')} <PlaceLink path={p.path} line={p.line} max={30} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {data.packages.length > shown.length && (
        <button type="button" className="quiet" onClick={() => setAll(true)}>
          {figure(data.packages.length - shown.length)} more
        </button>
      )}
    </section>
  )
}
