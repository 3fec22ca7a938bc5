import { useState } from 'react'
import { useOverrules } from '../api/queries'
import { roleOrder } from '../theme/roles'
import { useWhere } from '../place/place'
import { useByHand } from './byHand'

/** Who may have written a file, and how that is said. */
const origins = [
  ['own', 'own: written here'],
  ['vendored', 'vendored: by others'],
  ['generated', 'generated: by a tool'],
  ['built', 'built from other files'],
  ['scaffold', 'scaffold: a starter’s'],
  ['data', 'data in files of code'],
] as const

/** What a file is and is about, with its reasons, and how to say otherwise. */
export function RoleAndFeature({
  path,
  role,
  feature,
  origin,
}: {
  path: string
  origin: { origin: string; evidence: readonly string[]; by_hand: boolean }
  role: { role: string; source: string; reasons: readonly string[]; by_hand: boolean }
  feature: { feature: string; reasons: readonly string[]; by_hand: boolean }
}) {
  const hand = useByHand()
  const [about, setAbout] = useState<string | null>(null)
  return (
    <div className="toldof">
      <label>
        {role.source === 'assumed' ? <i>role, assumed</i> : 'role'}
        <select
          aria-label="role"
          value={role.role}
          title={role.reasons.join('\n')}
          onChange={(e) => hand.set({ kind: 'role', target: path, value: e.target.value })}
        >
          {role.role === '' && <option value="">unknown</option>}
          {roleOrder.map((r) => (
            <option key={r}>{r}</option>
          ))}
        </select>
      </label>
      {role.by_hand && <Back kind="role" path={path} />}
      <label>
        origin
        <select
          aria-label="origin"
          value={origin.origin}
          title={origin.evidence.join('\n') || 'nothing says that anybody else wrote it'}
          onChange={(e) => hand.set({ kind: 'origin', target: path, value: e.target.value })}
        >
          {origin.origin === '' && <option value="">not read</option>}
          {origins.map(([o, says]) => (
            <option key={o} value={o}>
              {says}
            </option>
          ))}
        </select>
      </label>
      {origin.by_hand && <Back kind="origin" path={path} />}
      <form
        onSubmit={(e) => {
          e.preventDefault()
          if (about !== null) hand.set({ kind: 'feature', target: path, value: about.trim() }, () => setAbout(null))
        }}
      >
        <label title={feature.reasons.join('\n')}>
          feature
          <input
            aria-label="feature"
            value={about ?? feature.feature}
            placeholder="shared"
            size={14}
            onChange={(e) => setAbout(e.target.value)}
          />
        </label>
        {about !== null && about.trim() !== feature.feature && (
          <button type="submit" className="quiet">
            Set
          </button>
        )}
      </form>
      {feature.by_hand && <Back kind="feature" path={path} />}
      {hand.error && <p role="alert">{hand.error.message}</p>}
    </div>
  )
}

/** Takes back what was set by hand, where it was set for this place itself. */
function Back({ kind, path }: { kind: 'role' | 'origin' | 'feature' | 'purpose'; path: string }) {
  const { where } = useWhere()
  const by = useOverrules(where.id).data ?? []
  const hand = useByHand()
  const mine = by.find((o) => o.kind === kind && o.target === path)
  return (
    <small>
      set by hand{' '}
      {mine && (
        <button type="button" className="quiet" onClick={() => hand.set({ ...mine, gone: true })}>
          Take back
        </button>
      )}
    </small>
  )
}

/** Lets the lead say what a folder is for. */
export function PurposeByHand({ path, text, lead }: { path: string; text: string; lead: boolean }) {
  const hand = useByHand()
  const [written, setWritten] = useState<string | null>(null)
  if (written === null)
    return (
      <span>
        <button type="button" className="quiet" onClick={() => setWritten(text)}>
          {text ? 'Say it otherwise' : 'Say what it is for'}
        </button>{' '}
        {lead && <Back kind="purpose" path={path} />}
      </span>
    )
  return (
    <form
      className="toldof"
      onSubmit={(e) => {
        e.preventDefault()
        if (written.trim()) hand.set({ kind: 'purpose', target: path, value: written.trim() }, () => setWritten(null))
      }}
    >
      <label>
        <span className="hidden">Purpose of {path}</span>
        <textarea rows={2} value={written} onChange={(e) => setWritten(e.target.value)} />
      </label>
      <button type="submit" className="quiet">
        Set
      </button>
      <button type="button" className="quiet" onClick={() => setWritten(null)}>
        Leave it
      </button>
      {hand.error && <p role="alert">{hand.error.message}</p>}
    </form>
  )
}

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
