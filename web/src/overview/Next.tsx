import type { Sheet } from '../api/types'
import { PlaceLink } from '../place/PlaceLink'

/** How it is run, and the one step to take from here. */
export function Next({ s }: { s: Sheet }) {
  const run = s.runs.find((r) => r.purpose === 'run') ?? s.runs[0]
  const first = s.read_first[0]
  if (!run && !first) return null
  return (
    <p className="next">
      {run && (
        <>
          {run.purpose === 'run' ? 'Run it with' : `To ${run.purpose} it:`} <code>{run.text}</code>{' '}
          <small>
            <PlaceLink path={run.path} line={run.line} max={30} />
          </small>
          .{' '}
        </>
      )}
      {first && (
        <>
          Read next: <PlaceLink path={first.path} line={first.line} max={44} /> <small>{first.why}</small>
        </>
      )}
    </p>
  )
}
