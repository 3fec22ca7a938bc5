import type { Smell } from '../api/types'
import { useReview } from './review'
import { SilenceField } from './SilenceField'

/** What can be done with a smell: recorded, dismissed, or let count again. */
export function SmellActions({ s, recorded, onRecord }: { s: Smell; recorded: boolean; onRecord: () => void }) {
  const review = useReview()
  return (
    <p className="doing">
      <button type="button" className="quiet" onClick={onRecord} disabled={recorded}>
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
  )
}
