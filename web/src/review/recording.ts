import { useState } from 'react'
import type { Smell } from '../api/types'
import { useReview, type Review } from './review'

/** Makes findings of smells: each once, however often and fast it is asked for. `sending` holds those on their way. */
export function recorder(review: Pick<Review, 'add' | 'recorded'>, survey: number, sending: Set<string>) {
  const made = new Set(review.recorded)
  const isRecorded = (s: Pick<Smell, 'id' | 'was'>) => made.has(s.id) || s.was.some((id) => made.has(id))
  const record = (s: Pick<Smell, 'id' | 'was' | 'path'>) => {
    if (isRecorded(s) || sending.has(s.id)) return
    sending.add(s.id)
    review
      .add({ kind: 'improve', title: '', path: s.path, smell: s.id, survey })
      .catch(() => undefined)
      .finally(() => sending.delete(s.id))
  }
  return { isRecorded, record }
}

export function useRecording(survey: number) {
  const review = useReview()
  const [sending] = useState(() => new Set<string>())
  return recorder(review, survey, sending)
}
