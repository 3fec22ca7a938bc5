import { useState } from 'react'
import { useBelongings } from '../api/queries'
import { Ledger, type Column } from '../parts/ledger/Ledger'
import type { Sorting } from '../parts/ledger/moves'
import { PlaceLink } from '../place/PlaceLink'
import { nameOf, useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'

type File = NonNullable<ReturnType<typeof useBelongings>['data']>[number]

const columns: Column<File>[] = [
  {
    id: 'file',
    title: 'file',
    width: 'minmax(140px, 1.2fr)',
    value: (f) => f.path,
    cell: (f) => <PlaceLink path={f.path} as={nameOf(f.path)} />,
  },
  {
    id: 'role',
    title: 'role',
    width: '96px',
    value: (f) => f.role,
    cell: (f) => f.role || <span className="faint">unknown</span>,
  },
  {
    id: 'feature',
    title: 'feature',
    width: '110px',
    value: (f) => f.feature,
    cell: (f) => f.feature || <span className="faint">shared</span>,
  },
  { id: 'lines', title: 'lines', width: '60px', right: true, value: (f) => f.lines, cell: (f) => figure(f.lines) },
  {
    id: 'here',
    title: 'tied to here',
    hint: 'dependencies to and from files of this folder, of all it has',
    width: '150px',
    value: (f) => f.own.links,
    cell: (f) => (
      <>
        {f.links > 0 ? `${figure(f.own.links)} of ${figure(f.links)}` : <span className="faint">no dependencies</span>}
        {f.own.changes > 0 && <small className="faint"> changed with {figure(f.own.changes)} ×</small>}
      </>
    ),
  },
  {
    id: 'away',
    title: 'and most to',
    hint: 'the other folder it has most to do with: dependencies, changes made together, words of its name',
    width: 'minmax(160px, 1.4fr)',
    cell: (f) =>
      f.other && (
        <>
          <PlaceLink path={f.other.folder} max={34} />{' '}
          <small className="faint">
            {f.other.links > 0 && `${figure(f.other.links)} of ${figure(f.links)}`}
            {f.other.changes > 0 && ` changed with ${figure(f.other.changes)} ×`}
          </small>
          {f.elsewhere && <b> would rather live there</b>}
        </>
      ),
  },
]

/** The files of one folder, with what holds each of them there and what draws it elsewhere. */
export function FolderFiles() {
  const { where, pick, go } = useWhere()
  const [sorting, setSorting] = useState<Sorting | null>(null)
  const files = useBelongings(where, where.at !== '.').data ?? []
  if (where.at === '.' || files.length === 0) return null
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
            {away.length > 4 && ` and ${figure(away.length - 4)} more`}.
          </>
        )}
      </p>
      <Ledger
        label="Files of the folder"
        columns={columns}
        rows={files}
        idOf={(f) => f.path}
        picked={where.pick}
        onPick={(id) => pick({ pick: id })}
        onOpen={(f) => go({ at: f.path, view: 'code' })}
        sorting={sorting}
        onSort={setSorting}
        classOf={(f) => (f.elsewhere ? 'away' : '')}
        first={40}
      />
    </section>
  )
}
