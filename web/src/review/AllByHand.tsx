import { useState } from 'react'
import { useOverrules } from '../api/queries'
import { useWhere } from '../place/place'
import { roleOrder } from '../theme/roles'
import { useByHand } from './byHand'
import { origins } from './origins'

/** Lets the lead give a role, an origin or a feature to all files of a folder, or to those a glob names. */
export function AllByHand({ path }: { path: string }) {
  const { where } = useWhere()
  const hand = useByHand()
  const mine = (useOverrules(where.id).data ?? []).filter(
    (o) =>
      (o.kind === 'role' || o.kind === 'origin' || o.kind === 'feature') &&
      (o.target === path || o.target.startsWith(`${path}/`) || path === '.'),
  )
  const [target, setTarget] = useState(path === '.' ? '**/*' : path)
  const [kind, setKind] = useState<'role' | 'origin' | 'feature'>('role')
  const [value, setValue] = useState('logic')
  return (
    <details className="many">
      <summary>Set for all of it{mine.length > 0 && <small> {mine.length} by hand</small>}</summary>
      <form
        className="byhand"
        onSubmit={(e) => {
          e.preventDefault()
          hand.set({ kind, target: target.trim(), value: value.trim() })
        }}
      >
        <label title="a folder, or a glob such as **/*_rules.py">
          files
          <input className="mono" value={target} onChange={(e) => setTarget(e.target.value)} />
        </label>
        <label>
          have the
          <select
            value={kind}
            onChange={(e) => {
              const chosen = e.target.value === 'role' || e.target.value === 'origin' ? e.target.value : 'feature'
              setKind(chosen)
              setValue({ role: 'logic', origin: 'vendored', feature: '' }[chosen])
            }}
          >
            <option>role</option>
            <option>origin</option>
            <option>feature</option>
          </select>
        </label>
        {kind === 'origin' && (
          <label>
            <span className="hidden">which origin</span>
            <select value={value} onChange={(e) => setValue(e.target.value)}>
              {origins.map(([o, says]) => (
                <option key={o} value={o}>
                  {says}
                </option>
              ))}
            </select>
          </label>
        )}
        {kind === 'role' && (
          <label>
            <span className="hidden">which role</span>
            <select value={value} onChange={(e) => setValue(e.target.value)}>
              {roleOrder.map((r) => (
                <option key={r}>{r}</option>
              ))}
            </select>
          </label>
        )}
        {kind === 'feature' && (
          <label>
            <span className="hidden">which feature</span>
            <input value={value} placeholder="shared" onChange={(e) => setValue(e.target.value)} />
          </label>
        )}
        <button type="submit" className="quiet" disabled={!target.trim()}>
          Set all
        </button>
      </form>
      {hand.error && <p role="alert">{hand.error.message}</p>}
      {mine.length > 0 && (
        <ul className="byhand">
          {mine.map((o) => (
            <li key={o.kind + o.target}>
              <span className="mono">{o.target}</span>: {o.kind} {o.value || 'shared'}{' '}
              <button type="button" className="quiet" onClick={() => hand.set({ ...o, gone: true })}>
                Take back
              </button>
            </li>
          ))}
        </ul>
      )}
    </details>
  )
}
