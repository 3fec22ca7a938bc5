import { useState } from 'react'
import type { Contract, Resource } from '../api/types'
import { PlaceLink } from '../place/PlaceLink'
import { useByHand } from '../review/byHand'

/** A resource opened in its place: its routes, what is missing, and its standard form. */
export function OneResource({ all, x }: { all: Contract; x: Resource }) {
  const replaced = new Set(x.standard?.replaces)
  return (
    <section className="strip" aria-label={`The resource ${x.pattern}`}>
      <ul className="rowsof mono">
        {x.routes.map((i) => {
          const r = all.routes[i]
          return (
            r && (
              <li key={i}>
                {x.standard && <span aria-label={replaced.has(i) ? 'would go' : 'stays'}>{replaced.has(i) ? '−' : ' '}</span>}{' '}
                {r.method} {r.pattern} <PlaceLink path={r.path} line={r.line} max={40} />
                {r.guards.length > 0 && <small> asks {r.guards.join(', ')}</small>}
                {x.open.includes(i) && <small className="unsure"> asks nothing</small>}
                {r.writes.length > 0 && <small className="unsure"> answers GET and {r.writes.join(', ')}</small>}
              </li>
            )
          )
        })}
        {x.standard && (
          <li className="instead">
            <span aria-label="would stand instead">+</span> {x.standard.text}
          </li>
        )}
      </ul>
      {x.standard && (
        <p>
          The framework has one line for all of these.{' '}
          {x.standard.otherwise.length === 0
            ? 'Every address would answer as it does now.'
            : `Otherwise would answer: ${x.standard.otherwise.map((o) => `${o.now} would be ${o.then}`).join('; ')}.`}
        </p>
      )}
      {x.missing.length > 0 && <Gap x={x} />}
    </section>
  )
}

/** What is missing, and the word that it is so on purpose. */
function Gap({ x }: { x: Resource }) {
  const { set, error, busy } = useByHand()
  const [why, setWhy] = useState('')
  const target = `${x.in}\t${x.pattern}`
  const missing = x.missing.join(', ')
  return (
    <>
      {x.purpose ? (
        <p>
          {missing}: missing on purpose, {x.purpose}.{' '}
          <button type="button" className="quiet" onClick={() => set({ kind: 'gap', target, value: '', gone: true })}>
            Take that back
          </button>
        </p>
      ) : (
        <form
          className="inline"
          onSubmit={(e) => {
            e.preventDefault()
            if (why.trim()) set({ kind: 'gap', target, value: why.trim() })
          }}
        >
          <label>
            Nothing here does what is usual: {missing}. On purpose, since{' '}
            <input value={why} maxLength={300} placeholder="why it is missing" onChange={(e) => setWhy(e.target.value)} />
          </label>{' '}
          <button type="submit" className="quiet" disabled={busy || !why.trim()}>
            On purpose
          </button>
        </form>
      )}
      {error && <p className="warn">{error.message}</p>}
    </>
  )
}
