import { WordsField } from '../parts/WordsField'
import { useWhere } from '../place/place'
import { chosenColumns, columns, flippedColumn, type ColumnLook } from './columns'

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
        <ColumnChoice
          asked={chosenColumns(query.get('columns'))}
          drawn={chosen}
          onFlip={(id) => show((now) => ({ columns: flippedColumn(now.get('columns'), id) }))}
        />
      </div>
    </div>
  )
}

/** Lets the reader choose which figures stand beside the folders; asked for are those drawn and those without room. */
function ColumnChoice({
  asked,
  drawn,
  onFlip,
}: {
  asked: readonly ColumnLook[]
  drawn: readonly ColumnLook[]
  onFlip: (id: ColumnLook['id']) => void
}) {
  return (
    <details className="columns">
      <summary>columns</summary>
      <div className="choice">
        {columns.map((c) => (
          <label key={c.id} title={c.hint}>
            <input type="checkbox" checked={asked.includes(c)} onChange={() => onFlip(c.id)} /> {c.title}{' '}
            <small className="faint">{asked.includes(c) && !drawn.includes(c) ? 'no room for it at this width' : c.hint}</small>
          </label>
        ))}
      </div>
    </details>
  )
}
