import { useState } from 'react'
import { useOverrule, useOverrules, usePlaces, useSettings } from '../api/queries'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'

/** Dependencies that no line of the code tells, as the lead declares them. */
export function Declared({ from }: { from: string }) {
  const { where } = useWhere()
  const person = useSettings().data?.person ?? ''
  const set = useOverrule(where.id)
  const all = (useOverrules(where.id).data ?? []).filter((o) => o.kind === 'link')
  const [a, setA] = useState(from)
  const [b, setB] = useState('')
  const [why, setWhy] = useState('')
  const save = (e: React.FormEvent) => {
    e.preventDefault()
    set.mutate(
      { kind: 'link', target: `${a.trim()}\t${b.trim()}`, value: why.trim(), by: person },
      {
        onSuccess: () => {
          setB('')
          setWhy('')
        },
      },
    )
  }
  return (
    <details className="declare" open={all.length > 0 || undefined}>
      <summary>Dependencies declared by hand{all.length > 0 && <small> {all.length}</small>}</summary>
      <p className="faint">
        For what no line of the code tells: a job that another system starts, a table that two programs share. It is drawn dotted
        and counts like any other.
      </p>
      <form className="byhand" onSubmit={save}>
        <FileField label="The file" value={a} onChange={setA} />
        <FileField label="needs" value={b} onChange={setB} />
        <label>
          because
          <input value={why} onChange={(e) => setWhy(e.target.value)} />
        </label>
        <button type="submit" className="quiet" disabled={!a.trim() || !b.trim() || !why.trim()}>
          Declare
        </button>
      </form>
      {set.isError && <p role="alert">{set.error.message}</p>}
      {all.length > 0 && (
        <ul className="byhand">
          {all.map((o) => {
            const [x = '', y = ''] = o.target.split('\t')
            return (
              <li key={o.target}>
                <PlaceLink path={x} /> needs <PlaceLink path={y} />: {o.value}
                {o.by && <small className="faint"> {o.by}</small>}{' '}
                <button type="button" className="quiet" onClick={() => set.mutate({ ...o, gone: true })}>
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

function FileField({ label, value, onChange }: { label: string; value: string; onChange: (v: string) => void }) {
  const { where } = useWhere()
  const places = usePlaces(where, value)
  const id = `files-${label.replace(' ', '-')}`
  return (
    <label>
      {label}
      <input value={value} onChange={(e) => onChange(e.target.value)} list={id} className="mono" />
      <datalist id={id}>
        {(places.data ?? [])
          .filter((p) => p.kind === 'file')
          .slice(0, 12)
          .map((p) => (
            <option key={p.path} value={p.path} />
          ))}
      </datalist>
    </label>
  )
}
