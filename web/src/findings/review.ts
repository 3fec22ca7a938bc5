import { createContext, useContext } from 'react'
import type { Finding, NewFinding, Patch, Smell } from '../api/types'

/** What every part of the interface uses to record and change what people say. All of it can be taken back. */
export interface Review {
  add: (f: NewFinding) => Promise<Finding>
  change: (f: Finding, patch: Patch) => Promise<Finding>
  /** Sets or takes away the read mark of a file, or of all judged files below a folder. */
  mark: (path: string, read: boolean) => void
  /** Stops a smell from counting; without a reason it counts again. */
  silence: (s: Pick<Smell, 'id' | 'message' | 'silenced'>, reason: string) => void
  undo: () => void
  /** The findings, in their order. */
  findings: Finding[]
  person: string
}

export const ReviewContext = createContext<Review | null>(null)

export function useReview(): Review {
  const r = useContext(ReviewContext)
  if (!r) throw new Error('useReview is used outside of ReviewProvider')
  return r
}
