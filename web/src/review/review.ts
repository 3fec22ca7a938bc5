import { createContext, useContext } from 'react'
import type { Brief, Finding, NewFinding, Overrule, Page, Patch, PictureBox, ScreenPicture, Smell } from '../api/types'
import type { Done } from './history'
import type { Changeable } from './undo'

/** What is set by hand, or with `gone` taken back. */
export type ByHand = Omit<Overrule, 'by'> & { gone?: boolean }

/** What every part of the interface uses to record and change what people say. All of it can be taken back. */
export interface Review {
  add: (f: NewFinding) => Promise<Finding>
  /** Makes a finding of each smell, as one step. */
  addAll: (all: readonly Pick<Smell, 'id' | 'path'>[], survey: number) => Promise<void>
  change: (f: Changeable, patch: Patch) => Promise<Finding>
  /** Sets or takes away the read mark of a file, or of all judged files below a folder. */
  mark: (path: string, read: boolean) => void
  /** Stops smells from counting, as one step; without a reason they count again. */
  silence: (all: readonly Pick<Smell, 'id' | 'message' | 'silenced'>[], reason: string) => void
  /** Sets things by hand, as one step with a name of its own. */
  overrule: (name: string, all: readonly ByHand[]) => Promise<void>
  arrange: (place: string, boxes: string[], was: string[]) => Promise<void>
  /** Puts a picture to a part or a route. */
  addPicture: (at: string, name: string, file: Blob) => Promise<void>
  /** Sets the boxes of a picture, or takes it away. */
  changePicture: (p: ScreenPicture, boxes: PictureBox[], gone?: boolean) => Promise<void>
  /** Writes a page that people read. */
  addPage: (kind: Page['kind'], title: string, text: string) => Promise<Page>
  /** Changes a page, or takes it away. */
  changePage: (p: Page, to: { title: string; text: string; gone?: boolean }) => Promise<Page>
  setBrief: (to: Brief, was: Brief, version: number) => Promise<void>
  setCharter: (to: string, was: string, version: number) => Promise<void>
  /** Takes back the last step, or the one named. */
  undo: (step?: Done) => void
  /** What this reader did, the newest last. */
  history: readonly Done[]
  /** The smells that findings were made of. */
  recorded: readonly string[]
  person: string
}

export const ReviewContext = createContext<Review | null>(null)

export function useReview(): Review {
  const r = useContext(ReviewContext)
  if (!r) throw new Error('useReview is used outside of ReviewProvider')
  return r
}
