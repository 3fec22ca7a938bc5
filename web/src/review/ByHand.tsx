import { useState } from 'react'
import { useOverrules } from '../api/queries'
import { roleOrder } from '../theme/roles'
import { useWhere } from '../place/place'
import { useByHand } from './byHand'
import { origins } from './origins'

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
