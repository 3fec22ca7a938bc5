import { useState } from 'react'
import { useWiring } from '../api/queries'
import type { Handed } from '../api/types'
import { Ledger, type Column } from '../parts/ledger/Ledger'
import { Failed, Waiting } from '../parts/Waiting'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'
import { lifetimes, sayMix } from './handed'
import { Modes } from './Modes'

const idOf = (h: Handed) => `${h.module} ${h.for}`

/** What a container hands out for what, who asks for it, and what may be wrong. */
export function Wiring() {
  const { where, query, show, go } = useWhere()
  const data = useWiring(where)
  const [picked, setPicked] = useState('')
  const wrong = query.get('wrong') ?? ''
  if (data.isError) return <Failed error={data.error} />
  if (!data.data) return <Waiting />
  const d = data.data
  const rows = d.rows.filter((h) => !wrong || h.wrong.includes(wrong as Handed['wrong'][number]))
  return (
    <section className="links listview fills">
      <h1>Dependencies</h1>
      <Modes />
      {d.all === 0 ? (
        <div className="empty">
          <p className="say">Nothing was found here that is handed out by a container.</p>
          <p>
            Registrations by calls and by marks on classes stand here, with who asks for what they hand out. Where things are made
            and passed on by hand, the drawing shows it.
          </p>
        </div>
      ) : (
        <>
          <div className="filters">
            {Object.entries(d.wrong).map(([w, n]) => (
              <button key={w} type="button" aria-pressed={w === wrong} onClick={() => show({ wrong: w === wrong ? '' : w })}>
                {w} {figure(n)}
              </button>
            ))}
            <span className="faint" role="status">
              {counted(d.all, 'type')} handed out or asked for
              {d.rows.length < d.all && `; the first ${figure(d.rows.length)} are shown`}.
            </span>
          </div>
          <Ledger
            label="What is handed out; arrows move, Enter opens where"
            columns={columns}
            rows={rows}
            idOf={idOf}
            picked={picked}
            onPick={setPicked}
            onOpen={(h) => {
              const at = h.by[0] ?? h.askers[0]
              if (at) go({ view: 'code', at: at.path, line: at.line })
            }}
            focus
          />
        </>
      )}
    </section>
  )
}

const columns: Column<Handed>[] = [
  {
    id: 'for',
    title: 'what is asked for',
    width: 'minmax(120px, 0.8fr)',
    cell: (h) => (
      <span className="cut" title={`${h.for} in ${h.module}`}>
        <b className="mono">{h.for}</b> {h.module !== '.' && <small>{h.module}</small>}
      </span>
    ),
  },
  {
    id: 'by',
    title: 'handed out for it',
    width: 'minmax(150px, 1.1fr)',
    cell: (h) => (
      <span className="cut" title={sayMix(h)}>
        {h.by.map((w, i) => (
          <span key={`${w.path}:${w.line}`}>
            {i > 0 && ', '}
            <PlaceLink path={w.path} line={w.line} as={w.provides || 'what a function makes'} />
          </span>
        ))}
        {h.by.length === 0 && <span className="unsure">nothing</span>}
      </span>
    ),
  },
  { id: 'life', title: 'lives', width: '140px', cell: (h) => <span className="cut">{lifetimes(h)}</span> },
  {
    id: 'askers',
    title: 'asked for by',
    width: 'minmax(150px, 1.1fr)',
    cell: (h) => (
      <span className="cut">
        {h.askers.slice(0, 4).map((a, i) => (
          <span key={`${a.path}:${a.line}`}>
            {i > 0 && ', '}
            <PlaceLink path={a.path} line={a.line} as={a.name} />
          </span>
        ))}
        {h.askers.length > 4 && ` and ${figure(h.askers.length - 4)} more`}
        {h.askers.length === 0 && <small className="faint">no field of what is handed out</small>}
      </span>
    ),
  },
  {
    id: 'wrong',
    title: 'what to look at',
    width: 'minmax(130px, 0.9fr)',
    cell: (h) => (
      <small className="unsure cut" title={h.wrong.join('; ')}>
        {h.wrong.join('; ')}
      </small>
    ),
  },
]
