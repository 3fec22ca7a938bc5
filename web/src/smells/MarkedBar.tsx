import type { Smell } from '../api/types'
import { SilenceField } from '../review/SilenceField'
import { useWhere } from '../place/place'
import { useRecording } from '../review/recording'
import { useReview } from '../review/review'
import { counted } from '../theme/ink'

interface Props {
  marked: readonly Smell[]
  all: readonly Smell[]
  onMarks: (ids: readonly string[]) => void
}

/** What can be done with all that is marked at once; each is one step that can be taken back. */
export function MarkedBar({ marked, all, onMarks }: Props) {
  const { where } = useWhere()
  const review = useReview()
  const { isRecorded } = useRecording(where.survey)
  if (marked.length === 0)
    return (
      <p className="markedbar">
        <button type="button" className="quiet" onClick={() => onMarks(all.filter((s) => !s.silenced).map((s) => s.id))}>
          Mark all shown
        </button>
      </p>
    )
  const done = () => onMarks([])
  const record = () => {
    // Let go of at once, and none a second time, however fast it is clicked.
    done()
    void review.addAll(
      marked.filter((s) => !isRecorded(s)),
      where.survey,
    )
  }
  return (
    <p className="markedbar" role="group" aria-label="What is marked">
      <b>{counted(marked.length, 'smell')} marked</b>
      <button type="button" className="quiet" onClick={record}>
        Make findings of them
      </button>
      <SilenceField
        text="Dismiss them"
        onSilence={(reason) => {
          review.silence(marked, reason)
          done()
        }}
      />
      <button type="button" className="quiet" onClick={done}>
        Take the marks away
      </button>
    </p>
  )
}
