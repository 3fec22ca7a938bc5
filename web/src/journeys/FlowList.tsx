import { useState } from 'react'
import type { Evidence, Flows } from '../api/types'
import { PlaceLink } from '../place/PlaceLink'
import { nameOf, useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'
import { having, type ListName } from './routes'

const none: Record<Exclude<ListName, 'routes'>, string> = {
  requests: 'No request over HTTP was found whose path is written where it is sent.',
  messages: 'No message was found that is sent or received by a name written in the code.',
  kept: 'No table, model or schema was found that the code keeps things in.',
}

/** One of the lists besides the routes, narrowed by words. */
export function FlowList({ name, flows, place }: { name: Exclude<ListName, 'routes'>; flows: Flows; place: string }) {
  const { query, show } = useWhere()
  const words = query.get('path') ?? ''
  const [most, setMost] = useState(300)
  const requests = having(flows.requests, words, (r) => `${r.method} ${r.host} ${r.pattern} ${r.path} ${r.route_path}`)
  const messages = having(
    flows.messages,
    words,
    (m) => `${m.name} ${[...m.senders, ...m.receivers].map((e) => e.path).join(' ')}`,
  )
  const entities = having(flows.entities, words, (e) => `${e.name} ${e.path}`)
  const n = { requests: requests.length, messages: messages.length, kept: entities.length }[name]
  const all = { requests: flows.requests, messages: flows.messages, kept: flows.entities }[name].length
  if (all === 0)
    return (
      <div className="empty">
        <p className="say">{none[name]}</p>
      </div>
    )
  return (
    <>
      <div className="filters">
        <label className="grow">
          <span className="hidden">Words</span>
          <input
            type="search"
            className="mono"
            size={44}
            value={words}
            placeholder="words of a name or a path"
            onChange={(e) => show({ path: e.target.value })}
          />
        </label>
      </div>
      <p className="faint" role="status">
        {name === 'requests' && `${counted(n, 'request')} sent or answered in ${place}.`}
        {name === 'messages' && `${counted(n, 'message')} sent or received in ${place}.`}
        {name === 'kept' && `${counted(n, 'thing')} kept or asked for in ${place}, with the places that do it.`}
      </p>
      {name === 'requests' && (
        <table>
          <colgroup>
            <col style={{ width: 76 }} />
            <col style={{ width: '34%' }} />
            <col />
            <col />
          </colgroup>
          <thead>
            <tr>
              <th scope="col">method</th>
              <th scope="col">path</th>
              <th scope="col">sent in</th>
              <th scope="col">answered in</th>
            </tr>
          </thead>
          <tbody>
            {requests.slice(0, most).map((r) => (
              <tr key={`${r.path}:${r.line} ${r.method} ${r.pattern}`}>
                <td className="mono">{r.host ? '' : r.method}</td>
                <td className="mono" title={r.host + r.pattern}>
                  {r.host ? `${r.host} ${r.pattern}` : r.pattern}
                </td>
                <td>
                  <PlaceLink path={r.path} line={r.line} max={30} />
                </td>
                <td>
                  {r.route_path ? (
                    <>
                      <PlaceLink path={r.route_path} line={r.route_line} max={30} />
                      {!r.sure && <small className="unsure"> {r.route}, not sure</small>}
                    </>
                  ) : r.host ? (
                    <small>another system</small>
                  ) : (
                    <small className="unsure">nothing here answers</small>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {name === 'messages' && (
        <table>
          <thead>
            <tr>
              <th scope="col">name</th>
              <th scope="col">sent in</th>
              <th scope="col">received in</th>
            </tr>
          </thead>
          <tbody>
            {messages.slice(0, most).map((m) => (
              <tr key={m.name}>
                <td className="mono">{m.name}</td>
                <td>
                  <Ends list={m.senders} none="nobody sends it" />
                </td>
                <td>
                  <Ends list={m.receivers} none="nobody receives it" />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {name === 'kept' && (
        <table>
          <colgroup>
            <col style={{ width: '13%' }} />
            <col style={{ width: '20%' }} />
            <col />
            <col />
            <col />
            <col />
          </colgroup>
          <thead>
            <tr>
              <th scope="col">name</th>
              <th scope="col">defined in</th>
              <th scope="col">created in</th>
              <th scope="col">read in</th>
              <th scope="col">updated in</th>
              <th scope="col">deleted in</th>
            </tr>
          </thead>
          <tbody>
            {entities.slice(0, most).map((e) => (
              <tr key={e.name + e.path}>
                <td className="mono">{e.name}</td>
                <td>
                  <PlaceLink path={e.path} line={e.line} max={24} />
                </td>
                {['create', 'read', 'update', 'delete'].map((o) => (
                  <td key={o}>
                    <Ends list={e.operations?.[o] ?? []} none={e.operations ? 'nowhere' : 'not told'} />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {n > most && (
        <button type="button" className="quiet" onClick={() => setMost(most + 500)}>
          {figure(n - most)} more
        </button>
      )}
    </>
  )
}

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
