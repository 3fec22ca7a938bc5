import type { Names } from '../api/types'
import { PlaceLink } from '../place/PlaceLink'
import { conventionText } from './saying'

/** How names of each kind are written, with those that stand apart. */
export function Conventions({ all }: { all: Names['conventions'] }) {
  if (all.length === 0) return <p className="say">Too few names have more than one word to tell how they are written.</p>
  const varied = all.filter((c) => c.cases.length > 1)
  const alike = all.filter((c) => c.cases.length === 1)
  return (
    <ul className="conventions" tabIndex={0} aria-label="How names are written" data-focus="">
      {varied.map((c) => (
        <li key={`${c.kind} ${c.language}`}>
          <p className="say">{conventionText(c)}</p>
          <span className="caserow" aria-hidden="true">
            {c.cases.map((x, i) => (
              <i key={x.case} className={`case c${i}`} style={{ flexGrow: x.count }} title={`${x.case}: ${x.count}`} />
            ))}
          </span>
          {c.outliers.length > 0 && (
            <p className="faint">
              Apart:{' '}
              {c.outliers.slice(0, 6).map((o, i) => (
                <span key={`${o.path} ${o.line} ${o.name}`}>
                  {i > 0 && ', '}
                  <PlaceLink path={o.path} line={o.line} as={o.name} />
                </span>
              ))}
              {c.outliers.length > 6 && ' and others'}.
            </p>
          )}
        </li>
      ))}
      {alike.length > 0 && (
        <li>
          <h2>Written in one way alone</h2>
          {alike.map((c) => (
            <p key={`${c.kind} ${c.language}`}>{conventionText(c)}</p>
          ))}
        </li>
      )}
    </ul>
  )
}
