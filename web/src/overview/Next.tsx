import { Link } from 'react-router'
import type { Sheet } from '../api/types'
import { PlaceLink } from '../place/PlaceLink'
import { stay, urlOf, useWhere } from '../place/place'

const leads: Record<string, string> = { journeys: 'Then follow one request', parts: 'Then open its parts' }

/** How it is run, and the one step to take from here. */
export function Next({ s }: { s: Sheet }) {
  const { where } = useWhere()
  const run = s.runs.find((r) => r.purpose === 'run') ?? s.runs.find((r) => r.purpose !== 'other')
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
          Read next: <PlaceLink path={first.path} line={first.line} max={44} /> <small>{first.why}</small>.{' '}
        </>
      )}
      {s.then && <Link to={urlOf({ ...stay(where), view: s.then, at: where.at })}>{leads[s.then]}</Link>}
    </p>
  )
}
