import { useState } from 'react'
import type { Desk } from '../api/types'
import { Emphasised } from '../parts/Emphasised'
import { PlaceLink } from '../place/PlaceLink'
import { useByHand } from '../review/byHand'
import { counted, figure } from '../theme/ink'
import { mayRest } from './desk'

type Rule = NonNullable<Desk['rule']>

/** A rule: what it asks, why, with an example, and what became of it here. */
export function AboutRule({ rule }: { rule: Rule }) {
  const { set, error } = useByHand()
  const count = () => set({ kind: 'rule', target: rule.slug, value: '', gone: true })
  return (
    <section className="aboutrule" aria-label={`The rule ${rule.title}`}>
      <p className="say">
        {rule.question} {rule.why}
      </p>
      <p>
        <b>For example</b> <Emphasised text={rule.example.replace(/`/g, '*')} />
      </p>
      <p>
        <b>What helps</b> {rule.remedy}
      </p>
      {rule.limits.length > 0 && (
        <p className="faint">
          Limits at this stage: {rule.limits.map((l) => `${l.meaning}: ${l.value < 1 ? l.value : figure(l.value)}`).join('; ')}.
        </p>
      )}
      {rule.dismissed.length > 0 && (
        <details>
          <summary>{counted(rule.dismissed.length, 'smell')} of it dismissed here, and why</summary>
          <ul className="places">
            {rule.dismissed.map((x) => (
              <li key={x.path + x.text}>
                <PlaceLink path={x.path} line={x.line} max={40} /> <small>{x.reason}</small>
              </li>
            ))}
          </ul>
        </details>
      )}
      {rule.rests && (
        <p className="warn">
          The rule rests here: {rule.rests}.{' '}
          <button type="button" className="quiet" onClick={count}>
            Let it count again
          </button>
        </p>
      )}
      {mayRest(rule) && <Rest rule={rule} />}
      {error && <p className="warn">{error.message}</p>}
    </section>
  )
}

/** Offers to let a rule rest, with the reason that most dismissals had. */
function Rest({ rule }: { rule: Rule }) {
  const { set, error, busy } = useByHand()
  const [reason, setReason] = useState(rule.dismissed[0]?.reason ?? '')
  return (
    <form
      className="inline"
      onSubmit={(e) => {
        e.preventDefault()
        if (reason.trim()) set({ kind: 'rule', target: rule.slug, value: reason.trim() })
      }}
    >
      <label>
        {counted(rule.dismissed.length, 'smell')} of this rule were dismissed. Does it fit this codebase? It can rest:{' '}
        <input value={reason} maxLength={300} placeholder="why it rests" onChange={(e) => setReason(e.target.value)} />
      </label>{' '}
      <button type="submit" className="quiet" disabled={busy || !reason.trim()}>
        Let it rest
      </button>
      {error && <span className="warn">{error.message}</span>}
    </form>
  )
}
