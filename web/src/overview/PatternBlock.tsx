import { useState } from 'react'
import type { Sheet } from '../api/types'
import { points } from '../theme/ink'
import { Places } from './Said'

/** A pattern with what speaks for it and against. */
export function PatternBlock({ p, first }: { p: Sheet['patterns'][number]; first: boolean }) {
  const [sums, setSums] = useState(false)
  return (
    <details className="pattern" open={first}>
      <summary>{p.name}</summary>
      <ul className="args">
        {p.for.map((a) => (
          <li key={a.text} className="for">
            <Argument a={a} sums={sums} />
          </li>
        ))}
        {p.against.map((a) => (
          <li key={a.text} className="against">
            <Argument a={a} sums={sums} />
          </li>
        ))}
      </ul>
      <button type="button" className="quiet" aria-expanded={sums} onClick={() => setSums(!sums)}>
        {sums ? `${points(p.score)} points of 100` : 'Arithmetic'}
      </button>
    </details>
  )
}

function Argument({ a, sums }: { a: Sheet['patterns'][number]['for'][number]; sums: boolean }) {
  const [open, setOpen] = useState(false)
  const pts = sums && (
    <small className="pts">
      {a.points > 0 ? '+' : ''}
      {a.points}
    </small>
  )
  if (a.evidence.length === 0)
    return (
      <>
        {a.text} {pts}
      </>
    )
  return (
    <>
      <button type="button" className="asLink" aria-expanded={open} onClick={() => setOpen(!open)}>
        {a.text}
      </button>{' '}
      {pts}
      {open && <Places list={a.evidence} first={8} />}
    </>
  )
}
