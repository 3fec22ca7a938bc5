import { useSurveyActions } from '../api/changes'
import type { Progress } from '../api/types'
import { figure } from '../theme/ink'

const steps: Record<string, string> = {
  listing: 'Listing the files',
  reading: 'Reading',
  linking: 'Linking',
  linked: 'Linking',
  history: 'Reading the history',
  keeping: 'Keeping what was read',
}

/** How far a running survey is, with the way to stop it. */
export function ProgressLine({ progress: p }: { progress: Progress }) {
  const { cancel } = useSurveyActions(p.codebase)
  return (
    <p className="progress" role="status">
      <span>
        {steps[p.step] ?? p.step}
        {p.total > 0 && `: ${figure(p.done)} of ${figure(p.total)} files`}
        {p.lines > 0 && `, ${figure(p.lines)} lines`}
        {p.links > 0 && `, ${figure(p.links)} dependencies`}
      </span>
      <progress max={p.total || undefined} value={p.total ? p.done : undefined} aria-label="Survey" />
      <button type="button" className="quiet" disabled={cancel.isPending} onClick={() => cancel.mutate()}>
        Cancel
      </button>
    </p>
  )
}
