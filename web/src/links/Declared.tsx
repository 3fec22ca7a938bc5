import { useState } from 'react'
import { useOverrules } from '../api/queries'
import { PlaceField } from '../place/PlaceField'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { useByHand } from '../review/byHand'

/** Dependencies that no line of the code tells, as the lead declares them. */
export function Declared({ from }: { from: string }) {
  const { where } = useWhere()
  const hand = useByHand()
  const all = (useOverrules(where.id).data ?? []).filter((o) => o.kind === 'link')
  const [a, setA] = useState(from)
  const [b, setB] = useState('')
  const [why, setWhy] = useState('')
  const save = (e: React.FormEvent) => {
    e.preventDefault()
    hand.set({ kind: 'link', target: `${a.trim()}\t${b.trim()}`, value: why.trim() }, () => {
      setB('')
      setWhy('')
    })
  }
  return (
    <details className="declare" open={all.length > 0 || undefined}>
      <summary>Dependencies declared by hand{all.length > 0 && <small> {all.length}</small>}</summary>
      <p className="faint">
        For what no line of the code tells: a job that another system starts, a table that two programs share. It is drawn dotted
        and counts like any other.
      </p>
      <form className="byhand" onSubmit={save}>
        <PlaceField files label="The file" value={a} onChange={setA} />
        <PlaceField files label="needs" value={b} onChange={setB} />
        <label>
          because
          <input value={why} onChange={(e) => setWhy(e.target.value)} />
        </label>
        <button type="submit" className="quiet" disabled={!a.trim() || !b.trim() || !why.trim()}>
          Declare
        </button>
      </form>
      {hand.error && <p role="alert">{hand.error.message}</p>}
      {all.length > 0 && (
        <ul className="byhand">
          {all.map((o) => {
            const [x = '', y = ''] = o.target.split('\t')
            return (
              <li key={o.target}>
                <PlaceLink path={x} /> needs <PlaceLink path={y} />: {o.value}
                {o.by && <small className="faint"> {o.by}</small>}{' '}
                <button type="button" className="quiet" onClick={() => hand.set({ ...o, gone: true })}>
                  Take back
                </button>
              </li>
            )
          })}
        </ul>
      )}
    </details>
  )
}
