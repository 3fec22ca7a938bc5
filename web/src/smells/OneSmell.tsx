import type { Smell } from '../api/types'
import { Emphasised } from '../parts/Emphasised'
import { SilenceField } from '../review/SilenceField'
import { PlaceLink } from '../place/PlaceLink'
import { useReview } from '../review/review'

/** A smell opened in its place in the list: its evidence, what helps, and what to do with it. */
export function OneSmell({ s, recorded, onRecord }: { s: Smell; recorded: boolean; onRecord: () => void }) {
  const review = useReview()
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
      <p className="doing">
        <button type="button" className="quiet" onClick={onRecord} aria-disabled={recorded}>
          {recorded ? 'recorded' : 'Make it a finding'} {!recorded && <kbd>s</kbd>}
        </button>
        {s.silenced ? (
          <button type="button" className="quiet" onClick={() => review.silence([s], '')}>
            Count it again
          </button>
        ) : (
          <SilenceField onSilence={(reason) => review.silence([s], reason)} />
        )}
      </p>
    </div>
  )
}
