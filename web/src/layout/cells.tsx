import { Link } from 'react-router'
import type { Row } from '../api/types'
import { stay, urlOf, useWhere } from '../place/place'
import { figure, inkStep, shortPath, spokenDay } from '../theme/ink'
import type { ColumnLook } from './columns'
import { needsTwoLines, type Shown } from './tree'

/** How much of a row was looked at. */
export function ReadCell({ row }: { row: Row }) {
  return (
    <span className="readmark" title={row.judged ? `${Math.round(row.read * 100)} % looked at` : 'nothing to judge'}>
      {row.judged ? (row.read >= 1 ? '●' : row.read > 0 ? '◐' : '○') : ''}
    </span>
  )
}

/** The name of a folder or file with its purpose, and what folds it. */
export function NameCell({ s, named, onFold }: { s: Shown; named: number; onFold: (r: Row) => void }) {
  const { where } = useWhere()
  const r = s.row
  const head = r.head && `${r.path === '.' ? '' : `${r.path}/`}${r.head}`
  return (
    <span className="named" style={{ paddingLeft: Math.min(r.depth, 10) * 14 }}>
      {s.parent ? (
        <button
          type="button"
          className="twist"
          tabIndex={-1}
          aria-label={s.open ? `Fold ${r.name}` : `Unfold ${r.name}`}
          onClick={() => onFold(r)}
        >
          {s.open ? '▾' : '▸'}
        </button>
      ) : (
        <span className="twist" />
      )}
      <Link
        to={urlOf({ ...stay(where), view: r.file ? 'code' : 'layout', at: r.path })}
        tabIndex={-1}
        className="mono"
        title={r.path}
      >
        {shortPath(r.name, r.purpose ? 24 : 40)}
      </Link>
      {head && (
        <Link
          to={urlOf({ ...stay(where), view: 'code', at: head })}
          tabIndex={-1}
          className="headfile mono"
          title={`its head: ${head}, what stands for the folder to the outside`}
        >
          {r.head}
        </Link>
      )}
      <span
        className={`rpurpose ${r.source}${needsTwoLines(r, named) ? ' two' : ''}`}
        title={r.purpose ? `${r.purpose} (${r.source === 'author' ? 'its authors' : r.source})` : undefined}
      >
        {r.purpose}
      </span>
    </span>
  )
}

/** One figure of a row; what is nothing stays empty. */
export function Figure({ id, r }: { id: ColumnLook['id']; r: Row }) {
  switch (id) {
    case 'lines':
      return figure(r.lines)
    case 'files':
      return r.file ? '' : figure(r.files)
    case 'smells':
      return r.smells ? <span className={`ink k${inkStep(r.strongest)}`}>{figure(r.smells)}</span> : ''
    case 'findings':
      return r.findings ? <span className="noted">{figure(r.findings)}</span> : ''
    case 'changed':
      return r.changed ? <time dateTime={r.changed}>{spokenDay(r.changed)}</time> : ''
    default:
      return r[id] ? figure(r[id]) : ''
  }
}
