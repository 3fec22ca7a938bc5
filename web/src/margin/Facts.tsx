import type { Margin } from '../api/types'
import { counted, figure } from '../theme/ink'

/** What is known of the place in a few words: its size, and what it is. */
export function Facts({ m }: { m: Margin }) {
  const roles = Object.entries(m.roles)
    .filter(([r]) => r)
    .sort((a, b) => b[1] - a[1])
  return (
    <p className="facts">
      {m.kind === 'file' ? (
        <>
          {counted(m.lines, 'line')}
          {m.language && `, ${m.language}`}
          {m.skipped && (
            <details>
              <summary>
                <b>{m.skipped}</b>: not judged
              </summary>
              <ul>
                {m.origin.evidence.map((why) => (
                  <li key={why}>{why}</li>
                ))}
              </ul>
            </details>
          )}
          {m.role.role && (
            <details>
              <summary>
                Role <b>{m.role.role}</b>,{' '}
                {m.role.source === 'assumed' ? <i>assumed</i> : `${Math.round(m.role.confidence * 100)} % sure`}
              </summary>
              <ul>
                {m.role.reasons.map((r) => (
                  <li key={r}>{r}</li>
                ))}
              </ul>
            </details>
          )}
          {!m.role.role && !m.skipped && <>, role unknown</>}
          {m.partial && <span className="unsure"> Read in part: {m.partial}.</span>}
        </>
      ) : (
        <>
          {counted(m.files, 'file')}, {counted(m.lines, 'line')}.{' '}
          {roles.length > 0 &&
            `Most often ${roles
              .slice(0, 3)
              .map(([r, n]) => `${r} (${figure(n)})`)
              .join(', ')}.`}
          {m.kind === 'folder' && m.ties.inside + m.ties.crossing > 0 && (
            <span title="dependencies between files below it, of all that touch them">
              {' '}
              {m.ties.crossing === 0
                ? `All ${figure(m.ties.inside)} dependencies of its files stay inside.`
                : `${figure(m.ties.inside)} of the ${counted(m.ties.inside + m.ties.crossing, 'dependency', 'dependencies')} of its files stay inside.`}
            </span>
          )}
        </>
      )}
    </p>
  )
}
