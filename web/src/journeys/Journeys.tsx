import { useRef, useState } from 'react'
import { Link } from 'react-router'
import { useFlows, useRoutes } from '../api/queries'
import { inField } from '../frame/gate'
import { Failed, Waiting } from '../frame/Waiting'
import { PlaceLink } from '../place/PlaceLink'
import { useNarrowing } from '../place/narrow'
import { nameOf, stay, urlOf, useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'
import { FlowList } from './FlowList'
import { lists, narrow, type ListName } from './routes'

/** What moves through the system: its routes, requests and messages, and what it keeps. */
export default function Journeys() {
  const { where, query, show } = useWhere()
  const list = lists.find((l) => l.name === query.get('list'))?.name ?? 'routes'
  const flows = useFlows(where, true)
  const place = where.at === '.' ? 'the codebase' : where.at
  const count = (name: ListName) =>
    name === 'routes' || !flows.data ? undefined : flows.data[name === 'kept' ? 'entities' : name].length
  return (
    <section className="journeys findings">
      <h1>Journeys</h1>
      <div className="tabs" role="tablist" aria-label="What is listed">
        {lists.map((l) => (
          <button
            key={l.name}
            type="button"
            role="tab"
            aria-selected={l.name === list}
            onClick={() => show({ list: l.name === 'routes' ? '' : l.name, path: '' })}
          >
            {l.title}
            {count(l.name) !== undefined && <small> {figure(count(l.name) ?? 0)}</small>}
          </button>
        ))}
      </div>
      {list === 'routes' ? (
        <Routes />
      ) : flows.isError ? (
        <Failed error={flows.error} />
      ) : flows.data ? (
        <FlowList name={list} flows={flows.data} place={place} />
      ) : (
        <Waiting />
      )}
    </section>
  )
}

/** Where a journey starts: the routes of the system, and what answers each. */
function Routes() {
  const { where, query, show } = useWhere()
  const wanted = query.get('path') ?? ''
  const typed = wanted.startsWith('/') ? wanted : ''
  const routes = useRoutes(where, typed)
  const narrowing = useNarrowing(where)
  const [most, setMost] = useState(300)
  const [at, setAt] = useState(-1)
  const rows = useRef<HTMLTableSectionElement>(null)
  if (routes.isError) return <Failed error={routes.error} />
  if (!routes.data) return <Waiting />
  const here = narrowing ? routes.data.filter((r) => narrowing.holds(r.path) || narrowing.holds(r.handler_path)) : routes.data
  const list = typed ? here : narrow(here, wanted)
  const press = (e: React.KeyboardEvent) => {
    if (e.ctrlKey || e.metaKey || e.altKey || inField(e.target) || (e.target as HTMLElement).closest('a')) return
    const by = { ArrowDown: 1, ArrowUp: -1 }[e.key]
    if (by) {
      const next = Math.max(0, Math.min(Math.min(list.length, most) - 1, at + by))
      setAt(next)
      rows.current?.children[next]?.scrollIntoView({ block: 'nearest' })
      e.preventDefault()
    } else if (e.key === 'Enter') rows.current?.children[at]?.querySelector('a')?.click()
  }
  const place = where.at === '.' ? 'the codebase' : where.at
  return (
    <div onKeyDown={press}>
      <div className="filters">
        <label className="grow">
          <span className="hidden">Path or words</span>
          <input
            type="search"
            className="mono"
            size={44}
            value={wanted}
            placeholder="/a/path, to see what answers it; or words"
            onChange={(e) => show({ path: e.target.value })}
          />
        </label>
      </div>
      <p className="faint" role="status">
        {typed
          ? list.length === 0
            ? `Nothing found in ${place} answers ${typed}.`
            : `${counted(list.length, 'route')} would answer ${typed}.`
          : wanted
            ? `${counted(list.length, 'route')} with these words.`
            : `${counted(list.length, 'route')} declared or answered in ${place}.`}
      </p>
      {list.length === 0 && !wanted && (
        <div className="empty">
          <p className="say">No route was found here.</p>
          <p>
            Routes stand here that are declared by calls on a router, by annotations or attributes, in a list of addresses, by
            elements of a page, or by the place of a file, in Go, JavaScript, TypeScript, Python, Java, Kotlin, C#, PHP, Ruby,
            Perl and Rust.
          </p>
        </div>
      )}
      {list.length > 0 && (
        <table>
          <colgroup>
            <col style={{ width: 76 }} />
            <col style={{ width: '38%' }} />
            <col />
            <col />
          </colgroup>
          <thead>
            <tr>
              <th scope="col">method</th>
              <th scope="col">path</th>
              <th scope="col">answered by</th>
              <th scope="col">declared in</th>
            </tr>
          </thead>
          <tbody ref={rows} tabIndex={0} aria-label="Routes; arrows move, Enter opens what answers">
            {list.slice(0, most).map((r, i) => (
              <tr
                key={`${r.method} ${r.pattern} ${r.path}:${r.line}`}
                className={i === at ? 'picked' : ''}
                onClick={() => setAt(i)}
              >
                <td className="mono">{r.method === 'ANY' ? 'any' : r.method}</td>
                <td className="mono" title={r.pattern}>
                  <Pattern text={r.pattern} />
                </td>
                <td>
                  {r.handler_path ? (
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
                  ) : r.handler_name ? (
                    <>
                      <span className="mono">{r.handler_name}</span> <small className="unsure">not followed</small>
                    </>
                  ) : (
                    <small className={r.in_place ? '' : 'unsure'}>{r.in_place ? 'written in place' : 'not told'}</small>
                  )}
                </td>
                <td>
                  <PlaceLink path={r.path} line={r.line} max={26} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {list.length > most && (
        <button type="button" className="quiet" onClick={() => setMost(most + 500)}>
          {figure(list.length - most)} more
        </button>
      )}
    </div>
  )
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
