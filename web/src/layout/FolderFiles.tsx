import { useState } from 'react'
import { useBelongings } from '../api/queries'
import { PlaceLink } from '../place/PlaceLink'
import { nameOf, useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'

const atFirst = 40

/** The files of one folder, with what holds each of them there and what draws it elsewhere. */
export function FolderFiles() {
  const { where } = useWhere()
  const [all, setAll] = useState(false)
  const files = useBelongings(where, where.at !== '.').data ?? []
  if (where.at === '.' || files.length === 0) return null
  const shown = all ? files : files.slice(0, atFirst)
  const away = files.filter((f) => f.elsewhere)
  const tied = files.filter((f) => f.links > 0)
  const home = tied.filter((f) => f.own.links > 0)
  return (
    <section className="belongings">
      <h2>
        Its own files <small>{figure(files.length)}</small>
      </h2>
      <p>
        {tied.length === 0
          ? 'None of them depends on another file, or is depended on.'
          : `${figure(home.length)} of the ${counted(tied.length, 'file')} with dependencies ${home.length === 1 ? 'has' : 'have'} some of them here.`}{' '}
        {away.length > 0 && (
          <>
            {counted(away.length, 'file')} would rather live elsewhere:{' '}
            {away.slice(0, 4).map((f, i) => (
              <span key={f.path}>
                {i > 0 && ', '}
                <PlaceLink path={f.path} as={nameOf(f.path)} /> in <PlaceLink path={f.other?.folder ?? '.'} />
              </span>
            ))}
            {away.length > 4 && ' …'}.
          </>
        )}
      </p>
      <table className="plain">
        <thead>
          <tr>
            <th scope="col">file</th>
            <th scope="col">role</th>
            <th scope="col">feature</th>
            <th scope="col" className="r">
              lines
            </th>
            <th scope="col" title="dependencies to and from files of this folder, of all it has">
              tied to here
            </th>
            <th
              scope="col"
              title="the other folder it has most to do with: dependencies, changes made together, words of its name"
            >
              and most to
            </th>
          </tr>
        </thead>
        <tbody>
          {shown.map((f) => (
            <tr key={f.path} className={f.elsewhere ? 'away' : undefined}>
              <td>
                <PlaceLink path={f.path} as={nameOf(f.path)} />
              </td>
              <td>{f.role || <span className="faint">unknown</span>}</td>
              <td>{f.feature || <span className="faint">shared</span>}</td>
              <td className="r">{figure(f.lines)}</td>
              <td>
                {f.links > 0 ? `${figure(f.own.links)} of ${figure(f.links)}` : <span className="faint">no dependencies</span>}
                {f.own.changes > 0 && <small className="faint"> changed with {figure(f.own.changes)} ×</small>}
              </td>
              <td>
                {f.other && (
                  <>
                    <PlaceLink path={f.other.folder} max={34} />{' '}
                    <small className="faint">
                      {f.other.links > 0 && `${figure(f.other.links)} of ${figure(f.links)}`}
                      {f.other.changes > 0 && ` changed with ${figure(f.other.changes)} ×`}
                    </small>
                    {f.elsewhere && <b> would rather live there</b>}
                  </>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {files.length > shown.length && (
        <button type="button" className="quiet" onClick={() => setAll(true)}>
          {figure(files.length - shown.length)} more
        </button>
      )}
    </section>
  )
}
