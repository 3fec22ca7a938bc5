import { createContext, useContext } from 'react'
import type { Finding, NewFinding, Patch } from '../api/types'

/** What every part of the interface uses to record and change findings. */
export interface Review {
  add: (f: NewFinding) => Promise<Finding>
  /** Changes a finding; the last changes can be taken back with undo. */
  change: (f: Finding, patch: Patch) => Promise<Finding>
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

/** The patch that puts back what another one changes. */
export function inverse(f: Finding, patch: Patch): Patch {
  return Object.fromEntries(Object.keys(patch).map((k) => [k, f[k as keyof Patch]])) as Patch
}
