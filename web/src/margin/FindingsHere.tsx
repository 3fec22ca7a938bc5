import { Link, useNavigate } from 'react-router'
import type { Margin } from '../api/types'
import { beginOpening } from '../parts/gate'
import { stay, urlOf, useWhere } from '../place/place'
import { Sign } from '../review/Sign'
import { figure } from '../theme/ink'

/** How many findings stand in the margin; the list has the rest. */
const most = 12

/** The findings of the place, in their order. */
export function FindingsHere({ m }: { m: Margin }) {
  const { where } = useWhere()
  const navigate = useNavigate()
  return (
    <>
      <h3>
        <span>Findings here</span>
        <span>{figure(m.recorded)}</span>
      </h3>
      {m.recorded === 0 && <p className="faint">Nothing recorded yet. Write one below.</p>}
      <ul className="margfindings">
        {m.findings.slice(0, most).map((f) => (
          <li key={f.id}>
            <Sign kind={f.kind} />
            <span>
              <button
                type="button"
                className="asLink"
                onClick={() => {
                  beginOpening('finding')
                  void navigate(urlOf({ ...stay(where), view: 'findings', at: where.at }, { open: String(f.id) }))
                }}
              >
                {f.title}
              </button>
              <small>
                {f.state}
                {f.assignee && `, ${f.assignee}`}
              </small>
            </span>
          </li>
        ))}
      </ul>
      {m.recorded > most && (
        <Link className="quiet" to={urlOf({ ...stay(where), view: 'findings', at: m.path })}>
          {most} of {figure(m.recorded)}: see the list
        </Link>
      )}
    </>
  )
}
