import { Link } from 'react-router'
import type { PlaceKind } from '../parts/view'
import { narrowName } from '../place/narrow'
import { stay, urlOf, useWhere } from '../place/place'
import { BesideMenu } from './BesideMenu'
import { HistoryMenu } from './HistoryMenu'
import { views } from './views'

/** The views that have something to say of a place, and how the page is set up. */
export function ViewsNav({ kind, margin, onFold }: { kind: PlaceKind; margin: boolean; onFold: () => void }) {
  const { where, show } = useWhere()
  return (
    <nav className="views" aria-label="Views">
      {views
        .filter((v) => v.says[kind])
        .map((v) => (
          <Link
            key={v.id}
            to={urlOf({ ...stay(where), view: v.id, at: where.at })}
            aria-current={where.view === v.id ? 'page' : undefined}
            title={`${v.hint}; here: ${v.says[kind]}`}
          >
            <sup>{v.digit}</sup>
            {v.title}
          </Link>
        ))}
      {narrowName(where) && (
        <button
          type="button"
          className="narrowed"
          title="All views show only what belongs to it, as it was picked in the weave"
          onClick={() => show({ feature: '', role: '' })}
        >
          only <b>{narrowName(where)}</b> <span aria-hidden="true">×</span>
          <span className="hidden">: show all again</span>
        </button>
      )}
      <span className="setup">
        <HistoryMenu />
        <BesideMenu />
        <button type="button" className="fold" aria-expanded={margin} onClick={onFold}>
          {margin ? 'Fold margin' : 'Show margin'} <kbd>m</kbd>
        </button>
      </span>
    </nav>
  )
}
