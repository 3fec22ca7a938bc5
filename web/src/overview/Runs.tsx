import { useState } from 'react'
import type { Sheet } from '../api/types'
import { PlaceLink } from '../place/PlaceLink'
import { figure } from '../theme/ink'

const order = ['run', 'test', 'build', 'check', 'other']

/** How it is built, run and tested, as its own files say. */
export function Runs({ s }: { s: Sheet }) {
  const [all, setAll] = useState(false)
  const sorted = [...s.runs].sort((a, b) => order.indexOf(a.purpose) - order.indexOf(b.purpose))
  // Two of each purpose tell most; the rest is a click away.
  const seen: Record<string, number> = {}
  const shown = all
    ? sorted
    : sorted.filter((r) => (seen[r.purpose] = (seen[r.purpose] ?? 0) + 1) <= (r.purpose === 'other' ? 0 : 3))
  return (
    <>
      <table className="plain runs">
        <tbody>
          {shown.map((r) => (
            <tr key={r.path + r.line + r.text}>
              <td>{r.purpose}</td>
              <td className="mono" title={r.says}>
                {r.text}
              </td>
              <td>
                <PlaceLink path={r.path} line={r.line} max={24} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {shown.length < sorted.length && (
        <button type="button" className="quiet" onClick={() => setAll(true)}>
          {figure(sorted.length - shown.length)} more
        </button>
      )}
    </>
  )
}
