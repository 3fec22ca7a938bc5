import { useState } from 'react'
import type { Flows } from '../api/types'
import { Ledger } from '../parts/ledger/Ledger'
import { sortingFrom, sortingText } from '../parts/ledger/moves'
import { WordsField } from '../parts/WordsField'
import { useWhere } from '../place/place'
import { counted } from '../theme/ink'
import { entityColumns, messageColumns, requestColumns } from './flowColumns'
import { having, type ListName } from './routes'

type Name = Exclude<ListName, 'routes' | 'resources' | 'rights' | 'states'>

const none: Record<Name, string> = {
  requests: 'No request over HTTP was found whose path is written where it is sent.',
  messages: 'No message was found that is sent or received by a name written in the code.',
  kept: 'No table, model or schema was found that the code keeps things in.',
}

/** One of the lists besides the routes, narrowed by words. */
export function FlowList({ name, flows, place }: { name: Name; flows: Flows; place: string }) {
  const { query, show, go } = useWhere()
  const [picked, setPicked] = useState('')
  const words = query.get('path') ?? ''
  const requests = having(flows.requests, words, (r) => `${r.method} ${r.host} ${r.pattern} ${r.path} ${r.route_path}`)
  const messages = having(
    flows.messages,
    words,
    (m) => `${m.name} ${[...m.senders, ...m.receivers].map((e) => e.path).join(' ')}`,
  )
  const entities = having(flows.entities, words, (e) => `${e.name} ${e.path}`)
  const all = { requests: flows.requests, messages: flows.messages, kept: flows.entities }[name].length
  if (all === 0)
    return (
      <div className="empty">
        <p className="say">{none[name]}</p>
      </div>
    )
  const says = {
    requests: `${counted(requests.length, 'request')} sent or answered in ${place}.`,
    messages: `${counted(messages.length, 'message')} sent or received in ${place}.`,
    kept: `${counted(entities.length, 'thing')} kept or asked for in ${place}, with the places that do it.`,
  }[name]
  const common = {
    picked,
    onPick: setPicked,
    sorting: sortingFrom(query.get('sort')),
    onSort: (s: { by: string; down: boolean }) => show({ sort: sortingText(s) }),
    focus: true,
  }
  const open = (e: { path: string; line: number } | undefined) => e && go({ view: 'code', at: e.path, line: e.line })
  return (
    <>
      <div className="filters">
        <WordsField label="Words" placeholder="words of a name or a path" value={words} onWords={(path) => show({ path })} wide />
      </div>
      <p className="faint" role="status">
        {says}
      </p>
      {name === 'requests' && (
        <Ledger
          {...common}
          label="Requests; arrows move, Enter opens the line"
          columns={requestColumns}
          rows={requests}
          idOf={(r) => `${r.path}:${r.line} ${r.method} ${r.host}${r.pattern}`}
          onOpen={open}
        />
      )}
      {name === 'messages' && (
        <Ledger
          {...common}
          label="Messages; arrows move, Enter opens the first sender"
          columns={messageColumns}
          rows={messages}
          idOf={(m) => m.name}
          onOpen={(m) => open(m.senders[0] ?? m.receivers[0])}
        />
      )}
      {name === 'kept' && (
        <Ledger
          {...common}
          label="What is kept; arrows move, Enter opens where it is defined"
          columns={entityColumns}
          rows={entities}
          idOf={(e) => `${e.name} ${e.path}:${e.line}`}
          onOpen={open}
        />
      )}
    </>
  )
}
