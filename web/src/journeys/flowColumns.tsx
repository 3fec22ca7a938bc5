import { useState } from 'react'
import type { Evidence, Flows } from '../api/types'
import type { Column } from '../parts/ledger/Ledger'
import { PlaceLink } from '../place/PlaceLink'
import { nameOf } from '../place/place'
import { figure } from '../theme/ink'

type Request = Flows['requests'][number]
type Message = Flows['messages'][number]
type Entity = Flows['entities'][number]

export const requestColumns: Column<Request>[] = [
  {
    id: 'method',
    title: 'method',
    width: '70px',
    value: (r) => r.method,
    cell: (r) => <span className="mono">{r.host ? '' : r.method}</span>,
  },
  {
    id: 'path',
    title: 'path',
    width: 'minmax(180px, 1.2fr)',
    value: (r) => r.host + r.pattern,
    cell: (r) => (
      <span className="mono" title={r.host + r.pattern}>
        {r.host ? `${r.host} ${r.pattern}` : r.pattern}
      </span>
    ),
  },
  {
    id: 'sent',
    title: 'sent in',
    width: 'minmax(120px, 1fr)',
    value: (r) => r.path,
    cell: (r) => <PlaceLink path={r.path} line={r.line} max={30} />,
  },
  {
    id: 'answered',
    title: 'answered in',
    width: 'minmax(120px, 1fr)',
    value: (r) => r.route_path || (r.host ? '~' : '~~'),
    cell: (r) =>
      r.route_path ? (
        <>
          <PlaceLink path={r.route_path} line={r.route_line} max={30} />
          {!r.sure && <small className="unsure"> {r.route}, not sure</small>}
        </>
      ) : r.host ? (
        <small>another system</small>
      ) : (
        <small className="unsure">nothing here answers</small>
      ),
  },
]

export const messageColumns: Column<Message>[] = [
  {
    id: 'name',
    title: 'name',
    width: 'minmax(160px, 1fr)',
    value: (m) => m.name,
    cell: (m) => <span className="mono">{m.name}</span>,
  },
  {
    id: 'senders',
    title: 'sent in',
    width: 'minmax(140px, 1fr)',
    value: (m) => m.senders.length,
    cell: (m) => <Ends list={m.senders} none="nobody sends it" />,
  },
  {
    id: 'receivers',
    title: 'received in',
    width: 'minmax(140px, 1fr)',
    value: (m) => m.receivers.length,
    cell: (m) => <Ends list={m.receivers} none="nobody receives it" />,
  },
]

export const entityColumns: Column<Entity>[] = [
  {
    id: 'name',
    title: 'name',
    width: 'minmax(90px, 1fr)',
    value: (e) => e.name,
    cell: (e) => <span className="mono">{e.name}</span>,
  },
  {
    id: 'defined',
    title: 'defined in',
    width: 'minmax(120px, 1.4fr)',
    value: (e) => e.path,
    cell: (e) => <PlaceLink path={e.path} line={e.line} max={24} />,
  },
  ...(['create', 'read', 'update', 'delete'] as const).map((o): Column<Entity> => ({
    id: o,
    title: `${o.replace(/e$/, '')}${o === 'read' ? '' : 'ed'} in`,
    width: 'minmax(90px, 1fr)',
    value: (e) => e.operations?.[o]?.length ?? 0,
    cell: (e) => <Ends list={e.operations?.[o] ?? []} none={e.operations ? 'nowhere' : 'not told'} />,
  })),
]

/** The first place of several, and how many there are. */
function Ends({ list, none }: { list: readonly Evidence[]; none: string }) {
  const [all, setAll] = useState(false)
  const [first, ...rest] = list
  if (!first) return <small className={none === 'nowhere' ? '' : 'unsure'}>{none}</small>
  return (
    <>
      {(all ? list : [first]).map((e) => (
        <span key={`${e.path}:${e.line}`} className="end">
          <PlaceLink path={e.path} line={e.line} as={`${nameOf(e.path)}:${e.line}`} />{' '}
        </span>
      ))}
      {rest.length > 0 && !all && (
        <button
          type="button"
          className="quiet"
          title={rest.map((e) => `${e.path}:${e.line}`).join('\n')}
          onClick={() => setAll(true)}
        >
          +{figure(rest.length)}
        </button>
      )}
    </>
  )
}
