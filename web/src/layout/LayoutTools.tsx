import { WordsField } from '../parts/WordsField'
import { useWhere } from '../place/place'
import { columns, type ColumnLook } from './columns'

/** What stands above the ledger: what it is, and what it shows of it. */
export function LayoutTools({
  title,
  says,
  shown,
  only,
  chosen,
}: {
  title: string
  says: string
  shown: string
  only: string
  chosen: readonly ColumnLook[]
}) {
  const { query, show } = useWhere()
  return (
    <div className="tools">
      <h1>{title}</h1>
      <p className="say">
        {says}
        {shown && <span className="faint">; {shown}</span>}
      </p>
      <div className="filters">
        <WordsField
          label="Filter"
          placeholder="Filter by name or purpose"
          value={query.get('filter') ?? ''}
          onWords={(filter) => show({ filter })}
        />
        {(['own', 'smelly', 'unread'] as const).map((o) => (
          <button key={o} type="button" aria-pressed={only === o} onClick={() => show({ only: only === o ? '' : o })}>
            only {o}
          </button>
        ))}
        <button type="button" onClick={() => show({ fold: '' })}>
          fold as at first
        </button>
        <ColumnChoice chosen={chosen} onChoose={(ids) => show({ columns: ids })} />
      </div>
    </div>
  )
}

/** Lets the reader choose which figures stand beside the folders. */
function ColumnChoice({ chosen, onChoose }: { chosen: readonly ColumnLook[]; onChoose: (ids: string) => void }) {
  const on = new Set(chosen.map((c) => c.id))
  return (
    <details className="columns">
      <summary>columns</summary>
      <div className="choice">
        {columns.map((c) => (
          <label key={c.id} title={c.hint}>
            <input
              type="checkbox"
              checked={on.has(c.id)}
              onChange={() => {
                const next = columns.filter((x) => (x.id === c.id ? !on.has(x.id) : on.has(x.id))).map((x) => x.id)
                onChoose(next.length > 0 ? next.join(',') : 'none')
              }}
            />{' '}
            {c.title} <small className="faint">{c.hint}</small>
          </label>
        ))}
      </div>
    </details>
  )
}
