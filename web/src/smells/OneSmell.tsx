import type { Smell } from '../api/types'
import { Emphasised } from '../parts/Emphasised'
import { PlaceLink } from '../place/PlaceLink'
import { SmellActions } from '../review/SmellActions'

/** A smell opened in its place in the list: its evidence, what helps, and what to do with it. */
export function OneSmell({ s, recorded, onRecord }: { s: Smell; recorded: boolean; onRecord: () => void }) {
  return (
    <div className="onesmell">
      <p>
        <Emphasised text={s.message} />
      </p>
      <ul className="places">
        {s.evidence.map((e, i) => (
          <li key={i}>
            <PlaceLink path={e.path} line={e.line} max={56} /> <small>{e.note}</small>
          </li>
        ))}
      </ul>
      <p>
        <b>What helps</b> {s.remedy}
      </p>
      {s.silenced && <p className="faint">Dismissed: {s.silenced}</p>}
      <SmellActions s={s} recorded={recorded} onRecord={onRecord} />
    </div>
  )
}
