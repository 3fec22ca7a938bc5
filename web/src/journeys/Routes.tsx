import { useMemo, useState } from 'react'
import { useRoutes } from '../api/queries'
import type { Contract } from '../api/types'
import { Ledger } from '../parts/ledger/Ledger'
import { sortingFrom, sortingText } from '../parts/ledger/moves'
import { Failed, Waiting } from '../parts/Waiting'
import { WordsField } from '../parts/WordsField'
import { useNarrowing } from '../place/narrow'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { figure } from '../theme/ink'
import { routeColumns } from './routeColumns'
import { idOf, isAddress, narrow, saysOf } from './routes'
import { Strip } from './Strip'

/** Rows grow where a way is opened below one. */
const rowHeight = () => 28

/** Where a journey starts: the routes of the system, and what answers each. */
export function Routes() {
  const { where, query, show } = useWhere()
  const wanted = query.get('path') ?? ''
  const typed = isAddress(wanted) ? wanted : ''
  const routes = useRoutes(where, typed)
  const narrowing = useNarrowing(where)
  const [picked, setPicked] = useState('')
  const opened = query.get('way') ?? ''
  const withTests = query.get('tests') === '1'
  const data = routes.data
  const { list, tests } = useMemo(() => {
    const all = data?.routes ?? []
    const here = narrowing ? all.filter((r) => narrowing.holds(r.path) || narrowing.holds(r.handler_path)) : all
    const asked = typed ? here : narrow(here, wanted)
    const own = asked.filter((r) => !r.in_tests)
    return { list: withTests ? asked : own, tests: asked.length - own.length }
  }, [data, narrowing, typed, wanted, withTests])
  if (routes.isError) return <Failed error={routes.error} />
  if (!data) return <Waiting />
  const place = where.at === '.' ? 'the codebase' : where.at
  return (
    <>
      <div className="filters">
        <WordsField
          label="Path or words"
          placeholder="/a/path or GET /a/path, to see what answers; or words"
          value={wanted}
          onWords={(path) => show({ path })}
          wide
        />
      </div>
      <p className="faint" role="status">
        {saysOf(list, typed, wanted, place)}{' '}
        {tests > 0 && (
          <button type="button" className="quiet" onClick={() => show({ tests: withTests ? '' : '1' })}>
            {withTests ? `leave out the ${figure(tests)} of tests` : `${figure(tests)} more in tests`}
          </button>
        )}
      </p>
      {!wanted && <Off off={data.off} />}
      {list.length === 0 && !wanted ? (
        <div className="empty">
          <p className="say">No route was found here{tests > 0 && ' but in tests'}.</p>
          <p>
            Routes stand here that are declared by calls on a router, by annotations or attributes, in a list of addresses, by
            elements of a page, or by the place of a file, in Go, JavaScript, TypeScript, Python, Java, Kotlin, C#, PHP, Ruby,
            Perl and Rust.
          </p>
        </div>
      ) : (
        <Ledger
          label="Routes; arrows move, Enter opens the way of one"
          columns={routeColumns}
          rows={list}
          idOf={idOf}
          picked={picked}
          onPick={setPicked}
          onOpen={(r) => show({ way: opened === idOf(r) ? '' : idOf(r) })}
          heightOf={rowHeight}
          below={(r) => opened === idOf(r) && <Strip route={r} />}
          sorting={sortingFrom(query.get('sort'))}
          onSort={(s) => show({ sort: sortingText(s) })}
          sorted={typed !== ''}
          focus
        />
      )}
    </>
  )
}

/** Routes that are there as comments alone. */
function Off({ off }: { off: Contract['off'] }) {
  if (off.length === 0) return null
  return (
    <p className="faint">
      {off.length === 1 ? 'One is switched off by a comment' : `${figure(off.length)} are switched off by comments`}:{' '}
      {off.slice(0, 6).map((r, i) => (
        <span key={`${r.path}:${r.line}`}>
          {i > 0 && ', '}
          <PlaceLink path={r.path} line={r.line} as={`${r.method || 'all below'} ${r.pattern}`} />
        </span>
      ))}
      {off.length > 6 && ` and ${figure(off.length - 6)} more`}.
    </p>
  )
}
