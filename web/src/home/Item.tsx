import { useState } from 'react'
import { Link } from 'react-router'
import { useSurveyActions } from '../api/changes'
import type { CodebaseStatus } from '../api/types'
import { ProgressLine } from '../parts/ProgressLine'
import { counted, figure } from '../theme/ink'

/** One codebase with its newest survey. */
export function Item({ c, onSaid }: { c: CodebaseStatus; onSaid: (text: string) => void }) {
  const actions = useSurveyActions(c.id)
  const [sure, setSure] = useState(false)
  const last = c.last
  return (
    <li>
      <div>
        {c.latest > 0 ? <Link to={`/c/${c.id}/overview`}>{c.name}</Link> : <b>{c.name}</b>}
        <small className="mono">
          {c.path}
          {c.revision && ` at ${c.revision}`}
        </small>
      </div>
      {c.running ? (
        <ProgressLine progress={c.running} />
      ) : (
        <p>
          {last && <LastSurvey c={c} />}
          <button type="button" className="quiet" onClick={() => actions.start.mutate()} disabled={actions.start.isPending}>
            {c.latest > 0 ? 'Survey again' : 'Survey it'}
          </button>
          {sure ? (
            <>
              <button
                type="button"
                className="quiet warn"
                onClick={() => actions.remove.mutate(undefined, { onSuccess: (freed) => onSaid(removed(c.name, freed)) })}
              >
                Remove it with its findings
              </button>
              <button type="button" className="quiet" onClick={() => setSure(false)}>
                Keep it
              </button>
            </>
          ) : (
            <button type="button" className="quiet" onClick={() => setSure(true)}>
              Remove …
            </button>
          )}
        </p>
      )}
      {actions.start.isError && (
        <p className="warn" role="alert">
          {actions.start.error.message}
        </p>
      )}
    </li>
  )
}

/** What was removed, and what that freed. */
export function removed(name: string, freed: { surveys: number; texts: number; bytes: number }): string {
  const size = freed.bytes >= 1e6 ? `${figure(Math.round(freed.bytes / 1e6))} MB` : `${figure(Math.ceil(freed.bytes / 1e3))} KB`
  return `${name} is removed: ${counted(freed.surveys, 'survey')}, ${counted(freed.texts, 'text')} that nothing else holds, ${size} freed.`
}

function LastSurvey({ c }: { c: CodebaseStatus }) {
  const last = c.last
  if (!last) return null
  const when = new Date(last.ended ?? last.started).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
  if (last.state === 'finished')
    return (
      <span>
        {figure(last.files)} files, {figure(last.lines)} lines, surveyed {when} in {last.seconds.toFixed(1)} s.
      </span>
    )
  return (
    <span className="unsure">
      The last survey was {last.state === 'failed' ? 'given up' : last.state} on {when}
      {last.problem && last.problem !== 'cancelled' ? `: ${last.problem}` : ''}.
      {c.latest > 0 ? ' The one before still stands.' : ''}
    </span>
  )
}
