import type { Margin } from '../api/types'
import { PlaceLink } from '../place/PlaceLink'
import { counted, figure } from '../theme/ink'

/** How a file came to be what it is: how often it changed, by whom, and with what. */
export function History({ h }: { h: NonNullable<Margin['history']> }) {
  const month = (at: string) => new Date(at).toLocaleDateString('en-GB', { month: 'long', year: 'numeric' })
  return (
    <details className="history">
      <summary>
        Changed {h.changes === 1 ? 'once' : `${figure(h.changes)} times`}, last in {month(h.last)}
        {h.authors[0] && `, ${h.authors.length > 1 ? 'mostly ' : ''}by ${h.authors[0].name}`}
      </summary>
      <ul>
        {h.authors.slice(0, 6).map((a) => (
          <li key={a.name}>
            {a.name} <small>{counted(a.commits, 'change')}</small>
          </li>
        ))}
      </ul>
      {h.together.length > 0 && (
        <>
          <p className="faint">It changes together with</p>
          <ul>
            {h.together.map((p) => (
              <li key={p.b}>
                <PlaceLink path={p.b} max={30} />{' '}
                <small>
                  {figure(p.together)} times, {Math.round(p.confidence * 100)} %
                </small>
              </li>
            ))}
          </ul>
        </>
      )}
    </details>
  )
}
