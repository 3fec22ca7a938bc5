import { useState } from 'react'
import { Link } from 'react-router'
import { useReach } from '../api/queries'
import type { Reach } from '../api/types'
import { PlaceLink } from '../place/PlaceLink'
import { nearName, stay, urlOf, useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'

/** What a change at the place may touch, and what comes along when it is taken elsewhere; asked for when it is opened. */
export function ReachHere({ path, line }: { path: string; line: number }) {
  const [open, setOpen] = useState(false)
  const { where } = useWhere()
  const x = useReach({ ...where, at: path }, line, open).data
  return (
    <details className="reachhere" open={open} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary>What a change here may touch</summary>
      {open && x && <Told x={x} path={path} line={line} />}
    </details>
  )
}

function Told({ x, path, line }: { x: Reach; path: string; line: number }) {
  const { where } = useWhere()
  const definition = line > 0
  const first = x.steps[0]
  return (
    <>
      <p>
        {x.files === 0
          ? 'Nothing was found that needs it'
          : `${counted(x.files, 'file')} in ${counted(x.folders.length, 'folder')}, ${figure(first?.count ?? 0)} directly`}
        {x.by_types > 0 && ` (and ${counted(x.by_types, 'file')} through types alone)`}.{' '}
        {x.tests.length > 0 ? `${counted(x.tests.length, 'test file')} reach it.` : 'No test was found that reaches it.'}
      </p>
      {x.steps.map((s) => (
        <details key={s.distance} open={s.distance === 1 && s.count <= 12}>
          <summary>
            {s.distance === 1 ? 'directly' : `over ${s.distance} steps`} <small>{figure(s.count)}</small>
          </summary>
          <ul>
            {s.places.map((p) => (
              <li key={`${p.path} ${p.name} ${p.line}`}>
                {p.name ? <PlaceLink path={p.path} line={p.line} as={nearName(p.name)} /> : <PlaceLink path={p.path} max={34} />}{' '}
                <small title={p.path}>
                  {p.name && p.path.slice(p.path.lastIndexOf('/') + 1)}
                  {p.sure ? '' : ' (may be)'}
                </small>
              </li>
            ))}
            {s.count > s.places.length && <li className="faint">{figure(s.count - s.places.length)} more</li>}
          </ul>
        </details>
      ))}
      {x.folders.length > 1 && (
        <details>
          <summary>by folder</summary>
          <ul>
            {x.folders.slice(0, 30).map((f) => (
              <li key={f.path}>
                <PlaceLink path={f.path} max={34} /> <small>{figure(f.files)}</small>
              </li>
            ))}
            {x.folders.length > 30 && <li className="faint">{figure(x.folders.length - 30)} more</li>}
          </ul>
        </details>
      )}
      {x.together.length > 0 && (
        <details>
          <summary>changed with it most often</summary>
          <ul>
            {x.together.map((t) => (
              <li key={t.path}>
                <PlaceLink path={t.path} max={34} /> <small>{counted(t.times, 'time')}</small>
              </li>
            ))}
          </ul>
        </details>
      )}
      {!definition && <Along x={x} />}
      <p>
        <Link to={urlOf({ ...stay(where), view: 'dependencies', at: path, line }, { mode: 'reach' })}>As a drawing</Link>
      </p>
    </>
  )
}

/** What has to come along, and which direct need brings most of it. */
function Along({ x }: { x: Reach }) {
  if (x.along.files === 0) return <p className="faint">Taken elsewhere it needs nothing of the rest.</p>
  return (
    <details>
      <summary>
        Taken elsewhere, {counted(x.along.files, 'file')} {x.along.files === 1 ? 'comes' : 'come'} along
      </summary>
      {x.along.cuts.map((c) => (
        <p key={c.to}>
          <small>
            {figure(c.saves)} fewer without <PlaceLink path={c.to} max={30} />, needed at{' '}
            <PlaceLink path={c.from} line={c.line} max={26} />
          </small>
        </p>
      ))}
      <ul>
        {x.along.list.map((p) => (
          <li key={p.path}>
            <PlaceLink path={p.path} max={34} />
          </li>
        ))}
        {x.along.files > x.along.list.length && <li className="faint">{figure(x.along.files - x.along.list.length)} more</li>}
      </ul>
    </details>
  )
}
