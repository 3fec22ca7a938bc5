import { useFlows } from '../api/queries'
import { Failed, Waiting } from '../parts/Waiting'
import { useWhere } from '../place/place'
import { figure } from '../theme/ink'
import { FlowList } from './FlowList'
import { Resources } from './Resources'
import { Rights } from './Rights'
import { Routes } from './Routes'
import { States } from './States'
import { lists, type ListName } from './routes'
import './journeys.css'

/** What moves through the system: its routes, requests and messages, and what it keeps. */
export default function Journeys() {
  const { where, query, show } = useWhere()
  const list = lists.find((l) => l.name === query.get('list'))?.name ?? 'routes'
  const flows = useFlows(where, true)
  const place = where.at === '.' ? 'the codebase' : where.at
  const count = (name: ListName) =>
    name === 'routes' || name === 'resources' || name === 'rights' || name === 'states' || !flows.data
      ? undefined
      : flows.data[name === 'kept' ? 'entities' : name].length
  return (
    <section className="journeys listview fills">
      <h1>Journeys</h1>
      <div className="tabs" role="tablist" aria-label="What is listed">
        {lists.map((l) => (
          <button
            key={l.name}
            type="button"
            role="tab"
            aria-selected={l.name === list}
            onClick={() => show({ list: l.name === 'routes' ? '' : l.name, path: '', sort: '', way: '', thing: '', holder: '' })}
          >
            {l.title}
            {count(l.name) !== undefined && <small> {figure(count(l.name) ?? 0)}</small>}
          </button>
        ))}
      </div>
      {list === 'routes' ? (
        <Routes />
      ) : list === 'resources' ? (
        <Resources />
      ) : list === 'rights' ? (
        <Rights />
      ) : list === 'states' ? (
        <States />
      ) : flows.isError ? (
        <Failed error={flows.error} />
      ) : flows.data ? (
        <FlowList key={list} name={list} flows={flows.data} place={place} />
      ) : (
        <Waiting />
      )}
    </section>
  )
}
