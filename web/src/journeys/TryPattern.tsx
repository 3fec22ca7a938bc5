import { useState } from 'react'
import { useTriedRoute } from '../api/queries'
import type { Route, Tried } from '../api/types'
import { WordsField } from '../parts/WordsField'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'

type Change = Tried['changes'][number]

/** Another pattern, tried before it is written: which addresses something else would answer. */
export function TryPattern({ route }: { route: Route }) {
  const { where } = useWhere()
  const [to, setTo] = useState('')
  const tried = useTriedRoute(where, route, to.trim())
  const asked = to.includes('/')
  const data = asked ? tried.data : undefined
  return (
    <details className="trypattern">
      <summary>Try another address for it</summary>
      <WordsField label="Another address" placeholder={`instead of ${route.pattern}`} value={to} onWords={setTo} wide />
      {to.trim() && !asked && <p className="faint">A pattern begins with a slash; a method may stand before it.</p>}
      {asked && tried.isError && <p className="unsure">{tried.error.message}</p>}
      {data && !tried.isError && (
        <>
          <p role="status">
            {data.changes.length === 0
              ? `Nothing would answer otherwise: tried with the addresses of ${counted(data.of, 'route')}.`
              : `${counted(data.changes.length, 'address', 'addresses')} would be answered otherwise, of those of ${counted(data.of, 'route')}.`}
          </p>
          <ul className="rowsof">
            {data.changes.slice(0, 40).map((c) => (
              <li key={`${c.method} ${c.address}`}>
                <span className="mono">
                  {c.method} {c.address}
                </span>{' '}
                <Answer r={c.now} none="nothing answers today" />
                {' → '}
                <Answer r={c.then} none="nothing would answer" />
              </li>
            ))}
            {data.changes.length > 40 && <li className="faint">and {figure(data.changes.length - 40)} more</li>}
          </ul>
        </>
      )}
    </details>
  )
}

function Answer({ r, none }: { r: Change['now']; none: string }) {
  if (!r) return <small className="unsure">{none}</small>
  if (r.tried) return <b>this route</b>
  return <PlaceLink path={r.path} line={r.line} as={`${r.method === 'ANY' ? '' : `${r.method} `}${r.pattern}`} />
}
