import { useState } from 'react'
import { useRoutes } from '../api/queries'
import type { Contract, Resource } from '../api/types'
import { Ledger, type Column } from '../parts/ledger/Ledger'
import { sortingFrom, sortingText } from '../parts/ledger/moves'
import { Failed, Waiting } from '../parts/Waiting'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'
import { OneResource } from './OneResource'
import { asksFirst, usual } from './routes'

const idOf = (x: Resource) => `${x.in} ${x.pattern}`

const columns = (all: Contract): Column<Resource>[] => [
  {
    id: 'thing',
    title: 'what the routes are about',
    width: 'minmax(170px, 1.5fr)',
    value: (x) => x.pattern,
    cell: (x) => (
      <span className="cut" title={`${x.pattern} in ${x.in}`}>
        <span className="mono">{x.pattern}</span> {x.in !== '.' && <small>{x.in}</small>}
      </span>
    ),
  },
  ...usual.map((what): Column<Resource> => ({
    id: what,
    title: what,
    width: '86px',
    value: (x) => (what in x.has ? 1 : 0),
    cell: (x) => <Done all={all} x={x} what={what} />,
  })),
  {
    id: 'more',
    title: 'more',
    hint: 'routes for something else that is done with it',
    width: '52px',
    right: true,
    value: (x) => x.routes.length - Object.keys(x.has).length,
    cell: (x) => figure(x.routes.length - Object.keys(x.has).length),
  },
  {
    id: 'guards',
    title: 'asks first',
    width: 'minmax(120px, 1fr)',
    value: (x) => x.open.length,
    cell: (x) => (
      <span className={x.open.length > 0 ? 'cut unsure' : 'cut mono'} title={asksFirst(x)}>
        {asksFirst(x)}
      </span>
    ),
  },
]

/** The route that does a thing, or that nothing does it. */
function Done({ all, x, what }: { all: Contract; x: Resource; what: string }) {
  const i = x.has[what]
  const r = i === undefined ? undefined : all.routes[i]
  if (!r) return <small className={x.purpose ? 'faint' : 'unsure'}>{x.purpose ? 'on purpose' : 'missing'}</small>
  return (
    <span title={`${r.method} ${r.pattern}`}>
      <PlaceLink path={r.path} line={r.line} as={r.method} />
      {x.odd.includes(what) && <small className="unsure"> {r.pattern.slice(r.pattern.lastIndexOf('/'))}</small>}
    </span>
  )
}

/** The routes by what they are about: what is usually done with it, what is missing, what is asked first. */
export function Resources() {
  const { where, query, show } = useWhere()
  const routes = useRoutes(where, '', true)
  const [picked, setPicked] = useState('')
  const opened = query.get('thing') ?? ''
  if (routes.isError) return <Failed error={routes.error} />
  if (!routes.data) return <Waiting />
  const all = routes.data
  if (all.resources.length === 0)
    return (
      <div className="empty">
        <p className="say">No resource was found here.</p>
        <p>One has an address for all of its kind and one below it for each, such as /lots and /lots/:id.</p>
      </div>
    )
  const gaps = all.resources.filter((x) => x.missing.length > 0 && !x.purpose).length
  const open = all.resources.filter((x) => x.open.length > 0).length
  return (
    <>
      <p className="faint" role="status">
        {counted(all.resources.length, 'resource')}
        {gaps > 0 && `; ${figure(gaps)} ${gaps === 1 ? 'lacks' : 'lack'} something that is usually done`}
        {open > 0 && `; in ${figure(open)} a route asks nothing while others of it do`}.
      </p>
      <Ledger
        label="Resources; arrows move, Enter opens one"
        columns={columns(all)}
        rows={all.resources}
        idOf={idOf}
        picked={picked}
        onPick={setPicked}
        onOpen={(x) => show({ thing: opened === idOf(x) ? '' : idOf(x) })}
        below={(x) => opened === idOf(x) && <OneResource all={all} x={x} />}
        sorting={sortingFrom(query.get('sort'))}
        onSort={(s) => show({ sort: sortingText(s) })}
        focus
      />
    </>
  )
}
