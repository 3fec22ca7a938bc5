import { useWhere } from '../place/place'
import { CodeHits } from './CodeHits'
import { searchState } from './groups'
import { useCodeSearch } from './useCodeSearch'
import './search.css'

interface Sought {
  q: string
  regex: boolean
  exact: boolean
  at: string
}

/** A search as it stands in an address. */
export const findText = (s: Sought): Record<string, string> => ({
  find: s.q,
  how: [s.regex && 'regex', s.exact && 'case'].filter(Boolean).join(','),
  below: s.at === '.' ? '' : s.at,
})

export function findFrom(q: URLSearchParams): Sought | null {
  const find = q.get('find')
  if (!find) return null
  const how = (q.get('how') ?? '').split(',')
  return { q: find, regex: how.includes('regex'), exact: how.includes('case'), at: q.get('below') ?? '.' }
}

/** The hits of a search that stay beside the code while they are gone through. */
export default function HitsPanel() {
  const { where, query, go, show } = useWhere()
  const sought = findFrom(query) ?? { q: '', regex: false, exact: false, at: '.' }
  const found = useCodeSearch({ id: where.id, survey: where.survey, ...sought })
  return (
    <aside className="hitspanel search" aria-label="Hits">
      <h2>
        <span className="mono">{sought.q}</span>{' '}
        <button type="button" className="quiet" onClick={() => show({ find: '', how: '', below: '' })}>
          close
        </button>
      </h2>
      <p className="faint">{searchState(found, sought.q)}</p>
      <div className="hits">
        <CodeHits files={found.files} onOpen={(path, line) => go({ view: 'code', at: path, line }, findText(sought))} />
      </div>
    </aside>
  )
}
