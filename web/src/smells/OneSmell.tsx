import { Link } from 'react-router'
import type { Smell } from '../api/types'
import { Emphasised } from '../parts/Emphasised'
import { PlaceLink } from '../place/PlaceLink'
import { stay, urlOf, useWhere } from '../place/place'
import { figure } from '../theme/ink'
import { SmellActions } from '../review/SmellActions'

/** A smell opened in its place in the list: its evidence, what helps, and what to do with it. */
export function OneSmell({ s, recorded, onRecord }: { s: Smell; recorded: boolean; onRecord: () => void }) {
  const { where } = useWhere()
  return (
    <div className="onesmell">
      <p>
        <Emphasised text={s.message} />
      </p>
      <ul className="places">
        {s.evidence.map((e, i) => (
          <li key={i}>
            <PlaceLink path={e.path} line={e.line} max={56} />{' '}
            <small>
              <Emphasised text={e.note} />
            </small>
          </li>
        ))}
      </ul>
      {s.habit && s.count > s.evidence.length && (
        <p>
          The {figure(s.evidence.length)} strongest of {figure(s.count)}.{' '}
          <Link to={urlOf({ ...stay(where), view: 'smells', at: s.path }, { key: s.rule, each: '1' })}>See each of them</Link>
        </p>
      )}
      <p>
        <b>What helps</b> {s.remedy}
      </p>
      {s.silenced && <p className="faint">Dismissed: {s.silenced}</p>}
      <SmellActions s={s} recorded={recorded} onRecord={onRecord} />
    </div>
  )
}
