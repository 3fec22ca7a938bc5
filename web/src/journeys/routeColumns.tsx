import { Link } from 'react-router'
import type { Route } from '../api/types'
import type { Column } from '../parts/ledger/Ledger'
import { PlaceLink } from '../place/PlaceLink'
import { nameOf, stay, urlOf, useWhere } from '../place/place'
import { figure } from '../theme/ink'
import { shownPattern } from './routes'

/** The columns of the list of routes. */
export const routeColumns: Column<Route>[] = [
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
    width: 'minmax(200px, 1.7fr)',
    value: (r) => r.pattern,
    cell: (r) => (
      <span className="mono" title={r.pattern}>
        <Pattern text={shownPattern(r.pattern)} />
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
    id: 'calls',
    title: 'asked by',
    hint: 'requests in this codebase that lead to it',
    width: '62px',
    right: true,
    value: (r) => r.calls,
    cell: (r) => (r.calls > 0 ? figure(r.calls) : <span className="faint">·</span>),
  },
  {
    id: 'declared',
    title: 'declared in',
    width: 'minmax(120px, 1fr)',
    value: (r) => r.path,
    cell: (r) => (
      <>
        <PlaceLink path={r.path} line={r.line} max={19} /> {r.in_tests && <small>a test</small>}
      </>
    ),
  },
]

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
