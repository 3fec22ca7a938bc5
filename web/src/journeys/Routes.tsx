import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import { useRoutes } from '../api/queries'
import type { Route } from '../api/types'
import { Ledger, type Column } from '../parts/ledger/Ledger'
import { sortingFrom, sortingText } from '../parts/ledger/moves'
import { Failed, Waiting } from '../parts/Waiting'
import { PlaceLink } from '../place/PlaceLink'
import { useNarrowing } from '../place/narrow'
import { WordsField } from '../parts/WordsField'
import { nameOf, stay, urlOf, useWhere } from '../place/place'
import { counted } from '../theme/ink'
import { Strip } from './Strip'
import { narrow } from './routes'

/** Rows grow where a way is opened below one. */
const rowHeight = () => 28

const idOf = (r: Route) => `${r.method} ${r.pattern} ${r.path}:${r.line}`

const columns: Column<Route>[] = [
  {
    id: 'method',
    title: 'method',
    width: '70px',
    value: (r) => r.method,
    cell: (r) => <span className="mono">{r.method === 'ANY' ? 'any' : r.method}</span>,
  },
  {
    id: 'path',
    title: 'path',
    width: 'minmax(200px, 1.4fr)',
    value: (r) => r.pattern,
    cell: (r) => (
      <span className="mono" title={r.pattern}>
        <Pattern text={r.pattern} />
      </span>
    ),
  },
  {
    id: 'handler',
    title: 'answered by',
    width: 'minmax(120px, 1fr)',
    value: (r) => r.handler_name,
    cell: (r) => <Handler r={r} />,
  },
  {
    id: 'answers',
    title: 'with',
    hint: 'what kind of answer it gives, where that could be told',
    width: '62px',
    value: (r) => r.answers,
    cell: (r) => <small>{r.answers}</small>,
  },
  {
    id: 'guards',
    title: 'asks first',
    hint: 'what is asked before it answers',
    width: 'minmax(70px, 0.6fr)',
    value: (r) => r.guards.length,
    cell: (r) => (
      <span className="cut mono" title={r.guards.join(', ')}>
        {r.guards.join(', ')}
      </span>
    ),
  },
  {
    id: 'declared',
    title: 'declared in',
    width: 'minmax(120px, 1fr)',
    value: (r) => r.path,
    cell: (r) => <PlaceLink path={r.path} line={r.line} max={22} />,
  },
]

/** Where a journey starts: the routes of the system, and what answers each. */
export function Routes() {
  const { where, query, show } = useWhere()
  const wanted = query.get('path') ?? ''
  const typed = wanted.startsWith('/') ? wanted : ''
  const routes = useRoutes(where, typed)
  const narrowing = useNarrowing(where)
  const [picked, setPicked] = useState('')
  const opened = query.get('way') ?? ''
  const data = routes.data
  const list = useMemo(() => {
    const here = narrowing ? (data ?? []).filter((r) => narrowing.holds(r.path) || narrowing.holds(r.handler_path)) : (data ?? [])
    return typed ? here : narrow(here, wanted)
  }, [data, narrowing, typed, wanted])
  if (routes.isError) return <Failed error={routes.error} />
  if (!data) return <Waiting />
  const place = where.at === '.' ? 'the codebase' : where.at
  const says = typed
    ? list.length === 0
      ? `Nothing found in ${place} answers ${typed}.`
      : `${counted(list.length, 'route')} would answer ${typed}.`
    : wanted
      ? `${counted(list.length, 'route')} with these words.`
      : `${counted(list.length, 'route')} declared or answered in ${place}.`
  return (
    <>
      <div className="filters">
        <WordsField
          label="Path or words"
          placeholder="/a/path, to see what answers it; or words"
          value={wanted}
          onWords={(path) => show({ path })}
          wide
        />
      </div>
      <p className="faint" role="status">
        {says}
      </p>
      {list.length === 0 && !wanted ? (
        <div className="empty">
          <p className="say">No route was found here.</p>
          <p>
            Routes stand here that are declared by calls on a router, by annotations or attributes, in a list of addresses, by
            elements of a page, or by the place of a file, in Go, JavaScript, TypeScript, Python, Java, Kotlin, C#, PHP, Ruby,
            Perl and Rust.
          </p>
        </div>
      ) : (
        <Ledger
          label="Routes; arrows move, Enter opens the way of one"
          columns={columns}
          rows={list}
          idOf={idOf}
          picked={picked}
          onPick={setPicked}
          onOpen={(r) => show({ way: opened === idOf(r) ? '' : idOf(r) })}
          heightOf={rowHeight}
          below={(r) => opened === idOf(r) && <Strip route={r} />}
          sorting={sortingFrom(query.get('sort'))}
          onSort={(s) => show({ sort: sortingText(s) })}
          focus
        />
      )}
    </>
  )
}

function Handler({ r }: { r: Route }) {
  const { where } = useWhere()
  if (r.handler_path)
    return (
      <>
        <Link
          className="place mono"
          title={`${r.handler_path}:${r.handler_line}`}
          to={urlOf({ ...stay(where), view: 'code', at: r.handler_path, line: r.handler_line })}
        >
          {r.handler_name.slice(r.handler_name.lastIndexOf('.') + 1)}
        </Link>{' '}
        <small className="mono">{nameOf(r.handler_path)}</small>
      </>
    )
  if (r.handler_name)
    return (
      <>
        <span className="mono">{r.handler_name}</span> <small className="unsure">not followed</small>
      </>
    )
  return <small className={r.in_place ? '' : 'unsure'}>{r.in_place ? 'written in place' : 'not told'}</small>
}

/** A path with the parts that stand for any value set apart. */
function Pattern({ text }: { text: string }) {
  return (
    <>
      {text.split(/((?:\/|^)(?::[^/]+|\{[^/]+\}|<[^/]+>|\*[^/]*))/).map((t, i) =>
        i % 2 === 1 ? (
          <span key={i} className="param">
            {t}
          </span>
        ) : (
          t
        ),
      )}
    </>
  )
}
