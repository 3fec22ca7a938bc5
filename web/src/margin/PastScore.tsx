import { usePastScores, useLookBack } from '../api/queries'
import { useWhere } from '../place/place'
import { points } from '../theme/ink'
import { lineOf, sayPast } from './past'

/** How the score of a codebase came about: past revisions judged as today, drawn as a line; told when it is asked for. */
export function PastScore() {
  const { where } = useWhere()
  const past = usePastScores(where.id).data
  const look = useLookBack(where.id)
  if (!past) return null
  if (past.state === 'none' || past.state === 'failed')
    return (
      <p className="rests">
        <button type="button" className="quiet" disabled={look.isPending} onClick={() => look.mutate()}>
          How it came about
        </button>{' '}
        {(past.problem || look.error) && <small className="unsure">{past.problem || look.error?.message}</small>}
      </p>
    )
  const scores = past.scores.filter((s) => s.legibility.total !== null)
  const line = lineOf(
    scores.map((s) => s.legibility.total ?? 0),
    270,
    62,
  )
  return (
    <figure className="pastscore">
      <svg viewBox="0 0 270 62" role="img" aria-label={sayPast(past)}>
        <line x1="0" y1="60" x2="270" y2="60" className="ground" />
        <polyline points={line.map((p) => `${p.x},${p.y}`).join(' ')} />
        {line.map((p, i) => {
          const s = scores[i]
          return (
            s && (
              <circle key={s.revision} cx={p.x} cy={p.y} r="3">
                <title>{`${s.at.slice(0, 10)}, ${s.revision.slice(0, 8)}: ${points(s.legibility.total)} of 100`}</title>
              </circle>
            )
          )
        })}
      </svg>
      <figcaption className="faint rests" role="status">
        {sayPast(past)}
      </figcaption>
    </figure>
  )
}
