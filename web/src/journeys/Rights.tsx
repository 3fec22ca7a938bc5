import { useState } from 'react'
import { useRights } from '../api/queries'
import type { Permitted, Allowed } from '../api/types'
import { Ledger, type Column } from '../parts/ledger/Ledger'
import { Failed, Waiting } from '../parts/Waiting'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { figure } from '../theme/ink'
import { checksOf, columnsOf, layers, narrowed, sayHole, sayRights } from './rights'

const idOf = (a: Permitted) => `${a.method} ${a.pattern} ${a.path}:${a.line}`

/** Who may do what: each action against each right, with where it is checked; those that lack a check first. */
export function Rights() {
  const { where, query, show, go } = useWhere()
  const rights = useRights(where)
  const [picked, setPicked] = useState('')
  const right = query.get('right') ?? ''
  const hole = query.get('hole') ?? ''
  if (rights.isError) return <Failed error={rights.error} />
  if (!rights.data) return <Waiting />
  const d = rights.data
  if (d.all === 0)
    return (
      <div className="empty">
        <p className="say">No route was found here.</p>
        <p>Here stands for each route who may call it, and where that is checked.</p>
      </div>
    )
  const rows = narrowed(d.actions, right, hole)
  return (
    <>
      <div className="filters">
        {Object.entries(d.holes).map(([h, n]) => (
          <button key={h} type="button" aria-pressed={h === hole} onClick={() => show({ hole: h === hole ? '' : h })}>
            {h} {figure(n)}
          </button>
        ))}
        {d.names.length > 1 && (
          <select aria-label="A right" value={right} onChange={(e) => show({ right: e.target.value })}>
            <option value="">every right</option>
            {d.names.map((n) => (
              <option key={n}>{n}</option>
            ))}
          </select>
        )}
      </div>
      <p className="faint" role="status">
        {sayRights(d)}{' '}
        {d.names.length > 0 && (
          <span className="marks">
            {layers.map((l) => (
              <span key={l.id}>
                <b className="mono">{l.letter}</b> {l.text}{' '}
              </span>
            ))}
          </span>
        )}
      </p>
      <Ledger
        label="Actions; arrows move, Enter opens the route"
        columns={columns(d)}
        rows={rows}
        idOf={idOf}
        picked={picked}
        onPick={setPicked}
        onOpen={(a) => go({ view: 'code', at: a.path, line: a.line })}
        focus
      />
    </>
  )
}

function columns(d: Allowed): Column<Permitted>[] {
  const { own, more } = columnsOf(d.names)
  return [
    {
      id: 'action',
      title: 'action',
      width: 'minmax(190px, 1.5fr)',
      cell: (a) => (
        <span className="cut mono" title={`${a.method} ${a.pattern}${a.does.length > 0 ? `: ${a.does.join(', ')}` : ''}`}>
          <b>{a.method}</b> {a.pattern}
        </span>
      ),
    },
    ...own.map((n): Column<Permitted> => ({
      id: `right ${n}`,
      title: (
        <span className="cut" title={n}>
          {n}
        </span>
      ),
      width: 'minmax(62px, 0.5fr)',
      cell: (a) => <Checked a={a} right={n} />,
    })),
    ...(more
      ? [
          {
            id: 'others',
            title: 'other rights',
            width: 'minmax(90px, 0.7fr)',
            cell: (a: Permitted) => {
              const others = [...new Set(a.checks.map((c) => c.right))].filter((n) => !own.includes(n))
              return (
                <span className="cut" title={others.join(', ')}>
                  {others.map((n) => (
                    <span key={n}>
                      <small className="mono">{n}</small> <Checked a={a} right={n} />{' '}
                    </span>
                  ))}
                </span>
              )
            },
          },
        ]
      : []),
    {
      id: 'hole',
      title: 'what to look at',
      width: 'minmax(140px, 1fr)',
      cell: (a) => (
        <small className="unsure cut" title={sayHole(a)}>
          {sayHole(a)}
        </small>
      ),
    },
  ]
}

/** Where a right is checked, a letter for each place, leading to it. */
function Checked({ a, right }: { a: Permitted; right: string }) {
  return (
    <>
      {checksOf(a, right)
        .slice(0, 4)
        .map((c) => (
          <span key={`${c.where} ${c.path}:${c.line}`} className="checked">
            <PlaceLink path={c.path} line={c.line} as={layers.find((l) => l.id === c.where)?.letter ?? ''} />
          </span>
        ))}
    </>
  )
}
