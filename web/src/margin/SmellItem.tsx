import type { Margin, Smell } from '../api/types'
import { Emphasised } from '../parts/Emphasised'
import { PlaceLink } from '../place/PlaceLink'
import { SmellActions } from '../review/SmellActions'
import { inkStep } from '../theme/ink'

type RuleText = Margin['titles'][string]

interface ItemProps {
  s: Smell
  place: string
  title: RuleText | undefined
  chosen: boolean
  recorded: boolean
  onChoose: () => void
  onRecord: () => void
}

/** One smell; chosen it says why, on what evidence, and what to do. */
export function SmellItem({ s, place, title, chosen, recorded, onChoose, onRecord }: ItemProps) {
  return (
    <li id={`smell-${s.id}`} className={chosen ? 'chosen' : ''}>
      <span
        className={`ink k${inkStep(s.strength)}`}
        title={`strength ${s.strength.toFixed(2)} of 1`}
        role="img"
        aria-label={`strength ${s.strength.toFixed(2)}`}
      />
      <div>
        <button type="button" className="asText" aria-expanded={chosen} onClick={onChoose}>
          <Emphasised text={s.message} />
        </button>
        <small>
          {s.path !== place && (
            <>
              <PlaceLink path={s.path} line={s.line ?? 0} max={30} /> ·{' '}
            </>
          )}
          {title?.title ?? s.rule}
          {s.silenced && ` · dismissed: ${s.silenced}`}
        </small>
        {chosen && (
          <div className="why">
            <p>{title?.why}</p>
            {s.evidence.length > 0 && (
              <ul>
                {s.evidence.map((e, i) => (
                  <li key={i}>
                    <PlaceLink path={e.path} line={e.line} max={30} />{' '}
                    <small>
                      <Emphasised text={e.note} />
                    </small>
                  </li>
                ))}
              </ul>
            )}
            <p>
              <b>Remedy.</b> {s.remedy}
            </p>
            <SmellActions s={s} recorded={recorded} onRecord={onRecord} />
          </div>
        )}
      </div>
    </li>
  )
}
