import { Link } from 'react-router'
import type { Excerpt } from '../api/types'
import { urlOf } from '../place/place'

/** The lines of a place, in the middle of a page. */
export function ExcerptOf({ id, x }: { id: number; x: Excerpt }) {
  const last = x.first + x.lines.length - 1
  return (
    <figure>
      <figcaption>
        {x.caption && x.caption !== x.path && `${x.caption} · `}
        <Link className="place mono" to={urlOf({ id, view: 'code', at: x.path, line: x.first, end: last })}>
          {x.path}
          {x.first > 0 && `:${x.first}${last > x.first ? `–${last}` : ''}`}
        </Link>
      </figcaption>
      {x.missing ? (
        <p className="faint">{x.missing}</p>
      ) : (
        <pre className="mono" tabIndex={0} aria-label={`Lines of ${x.path}`}>
          {x.lines.map((l, i) => (
            <span key={i} className="line">
              <span className="no" aria-hidden="true">
                {x.first + i}
              </span>
              {l}
              {'\n'}
            </span>
          ))}
        </pre>
      )}
    </figure>
  )
}
