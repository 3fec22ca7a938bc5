import { useState } from 'react'
import { useRename } from '../api/queries'
import type { Touched } from '../api/types'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'
import { byTie } from './definition'

/** What a rename of the definition under the cursor would touch; asked for when it is opened. */
export function RenameHere({ line }: { line: number }) {
  const { where } = useWhere()
  const [open, setOpen] = useState(false)
  const touched = useRename(where, open ? line : 0)
  return (
    <details open={open} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary>What a rename touches</summary>
      {touched.isError && <p className="warn">{touched.error.message}</p>}
      {touched.isLoading && <p className="faint">Looking through all texts …</p>}
      {touched.data && <Ties t={touched.data} />}
    </details>
  )
}

function Ties({ t }: { t: Touched }) {
  return (
    <>
      {byTie(t.places).map(({ tie, places }) => (
        <details key={tie} open={tie !== 'only looks like'}>
          <summary>
            {tie} {figure(places.length + (tie === 'only looks like' ? t.left : 0))}
          </summary>
          <ul>
            {places.map((p) => (
              <li key={`${p.path}:${p.line}`}>
                <PlaceLink path={p.path} line={p.line} max={30} /> <small className="mono cut">{p.text}</small>
              </li>
            ))}
          </ul>
          {tie === 'only looks like' && t.left > 0 && (
            <p className="faint">{counted(t.left, 'further line')} of this sort not listed; the search finds them.</p>
          )}
        </details>
      ))}
    </>
  )
}
