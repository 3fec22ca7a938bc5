import { useMemo, type ReactNode } from 'react'
import { useRecorded, useSettings } from '../api/queries'
import { useFindingSteps } from './findingSteps'
import { useHistory } from './history'
import { useJudgedSteps } from './judgedSteps'
import { useMarkSteps } from './markSteps'
import { usePageSteps } from './pageSteps'
import { usePictureSteps } from './pictureSteps'
import { ReviewContext, type Review } from './review'
import { SaidLine, useSaid } from './said'

const none: string[] = []

/** Keeps the review's actions, and what was done last, so that it can be undone. */
export function ReviewProvider({ id, children }: { id: number; children: ReactNode }) {
  const recorded = useRecorded(id).data ?? none
  const person = useSettings().data?.person ?? ''
  const { said, say } = useSaid()
  const { history, push, undo } = useHistory(say)
  const tools = useMemo(() => ({ id, person, say, push }), [id, person, say, push])
  const findings = useFindingSteps(tools)
  const marks = useMarkSteps(tools)
  const judged = useJudgedSteps(tools)
  const pictures = usePictureSteps(tools)
  const pages = usePageSteps(tools)
  const value = useMemo<Review>(
    () => ({ ...findings, ...marks, ...judged, ...pictures, ...pages, undo, history, recorded, person }),
    [findings, marks, judged, pictures, pages, undo, history, recorded, person],
  )
  return (
    <ReviewContext value={value}>
      {children}
      <SaidLine said={said} onUndo={() => undo()} />
    </ReviewContext>
  )
}
