import { useStateHolder } from '../api/queries'
import type { StateHolder } from '../api/types'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { pictureOf, sayFaults } from './states'

/** How states lead to each other: as a row with arrows, and the same as a list; then the choices among them. */
export function OneHolder({ path, line }: { path: string; line: number }) {
  const { where } = useWhere()
  const state = useStateHolder({ ...where, at: path }, line)
  if (state.isError) return <p className="warn">{state.error.message}</p>
  const h = state.data
  if (!h || h.path !== path) return <p className="faint">…</p>
  return (
    <div className="oneholder" role="region" tabIndex={0} aria-label={`The states of ${h.name}`}>
      {h.moves.length > 0 && <Picture h={h} />}
      {sayFaults(h).map((s) => (
        <p key={s} className="unsure">
          {s}
        </p>
      ))}
      <div className="partends">
        {h.moves.length > 0 && (
          <section>
            <h3>Steps</h3>
            <ul>
              {h.moves.map((m) => (
                <li key={`${m.path}:${m.line} ${m.from} ${m.to}`}>
                  {m.from || 'any'} → <b>{m.to}</b>
                  {m.when && <small> when {m.when}</small>}{' '}
                  <PlaceLink path={m.path} line={m.line} as={m.by || `line ${m.line}`} />
                </li>
              ))}
            </ul>
          </section>
        )}
        {h.choices.length > 0 && (
          <section>
            <h3>Choices among them</h3>
            <ul>
              {h.choices.map((c) => (
                <li key={`${c.path}:${c.line}`}>
                  <PlaceLink path={c.path} line={c.line} as={c.by || `line ${c.line}`} />{' '}
                  {c.lacks.length > 0 ? (
                    <span className="unsure">leaves out {c.lacks.join(', ')}</span>
                  ) : c.rest.length > 0 ? (
                    <small>{c.rest.join(', ')} under the case for the rest</small>
                  ) : (
                    <small>each has its case</small>
                  )}
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
    </div>
  )
}

function Picture({ h }: { h: StateHolder }) {
  const p = pictureOf(h)
  return (
    <svg
      className="statepicture"
      viewBox={`0 0 ${p.width} ${p.height}`}
      style={{ width: p.width, maxWidth: '100%' }}
      role="img"
      aria-label={`${h.members.length} states of ${h.name}; the steps are listed below`}
    >
      <defs>
        <marker id="statehead" viewBox="0 0 8 8" refX="7" refY="4" markerWidth="7" markerHeight="7" orient="auto">
          <path d="M0 0 L8 4 L0 8 z" />
        </marker>
      </defs>
      {p.arcs.map((a) => (
        <path key={`${a.from} ${a.to}`} className="arc" d={a.path} markerEnd="url(#statehead)" strokeWidth={Math.min(3, a.count)}>
          <title>{`${h.members[a.from] ?? ''} to ${h.members[a.to] ?? ''}${a.count > 1 ? `, ${a.count} times` : ''}`}</title>
        </path>
      ))}
      {p.boxes.map((b, i) => (
        <g key={b.name} className={b.never ? 'state never' : 'state'}>
          {p.any.includes(i) && (
            <path className="arc any" d={`M${b.x + b.width / 2} ${p.top - 13} V${p.top}`} markerEnd="url(#statehead)">
              <title>{`to ${b.name} from any state`}</title>
            </path>
          )}
          <rect x={b.x} y={p.top} width={b.width} height={26} rx={3} />
          {b.stuck && <rect x={b.x + 3} y={p.top + 3} width={b.width - 6} height={20} rx={2} />}
          <text x={b.x + b.width / 2} y={p.top + 17}>
            {b.name}
          </text>
        </g>
      ))}
    </svg>
  )
}
