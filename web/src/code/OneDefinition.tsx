import { useState } from 'react'
import { useDefinition } from '../api/queries'
import type { CallEnd } from '../api/types'
import { EndList } from '../parts/EndList'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'
import { acts, outOf } from './definition'
import { ShapeTable } from '../parts/ShapeTable'
import { RenameHere } from './RenameHere'

/** The definition under the cursor: what it calls, who calls it, which tests reach it. */
export function OneDefinition() {
  const { where } = useWhere()
  const d = useDefinition(where, where.line).data
  if (!where.line || !d || d.path !== where.at) return null
  return (
    <section className="onedef" aria-label="The definition at the picked line">
      <h2 className="mono">{d.name || 'top of the file'}</h2>
      <Ends title="Calls" list={d.calls.filter(acts)} own={d.path} none="nothing that is known" />
      <Ends title="Called by" list={d.called_by.filter(acts)} own={d.path} none="nothing found" />
      <Ends title="Reads" list={d.calls.filter((e) => !acts(e))} own={d.path} folded />
      <Ends title="Read by" list={d.called_by.filter((e) => !acts(e))} own={d.path} folded />
      {d.tests.length > 0 ? (
        <details>
          <summary>Reached by {counted(d.tests.length, 'test file')}</summary>
          <ul>
            {d.tests.map((t) => (
              <li key={t.path}>
                <PlaceLink path={t.path} max={30} /> <small>{t.kind}</small>
              </li>
            ))}
          </ul>
        </details>
      ) : (
        <p className="faint">No test was found that reaches it.</p>
      )}
      {d.name && <RenameHere key={`${d.path}:${d.line}`} line={d.line} />}
      {d.name && ['class', 'interface', 'type'].includes(d.kind) && <ShapeHere key={`shape ${d.path}:${d.line}`} line={d.line} />}
      {d.left > 0 && <p className="faint">{counted(d.left, 'further end')} not listed.</p>}
      {d.untold > 0 && <p className="faint">{outOf(d.untold)}</p>}
    </section>
  )
}

function Ends({
  title,
  list,
  own,
  none = '',
  folded,
}: {
  title: string
  list: readonly CallEnd[]
  own: string
  none?: string
  folded?: boolean
}) {
  if (folded && list.length === 0) return null
  return (
    <details open={!folded}>
      <summary>
        {title} {figure(list.length)}
      </summary>
      <EndList list={list} own={own} none={none} />
    </details>
  )
}

/** The type under the cursor beside others that are about the same; asked for when it is opened. */
function ShapeHere({ line }: { line: number }) {
  const { where } = useWhere()
  const [open, setOpen] = useState(false)
  return (
    <details open={open} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary>Its fields beside others</summary>
      {open && <ShapeTable path={where.at} line={line} />}
    </details>
  )
}
