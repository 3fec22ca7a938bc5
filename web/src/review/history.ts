import { useCallback, useRef, useState } from 'react'
import { Problem } from '../api/client'
import type { Say } from './said'

/** Something a reader did that can be taken back. */
export interface Done {
  id: number
  /** What it was, as it stands in the history. */
  name: string
  /** Takes it back, as far as nobody has changed it since. */
  back: () => Promise<void>
}

/** How many steps are kept to be taken back. */
const most = 50

/** Whether a step that could not be taken back may be tried again: what is gone can not. */
export const mayTryAgain = (e: unknown): boolean => !(e instanceof Problem && e.status === 404)

/** The steps a reader took, and how each is taken back. */
export function useHistory(say: Say) {
  const [history, setHistory] = useState<readonly Done[]>([])
  // Keys may follow each other faster than the page is drawn.
  const latest = useRef<readonly Done[]>([])
  const next = useRef(1)
  const set = useCallback((to: readonly Done[]) => {
    latest.current = to
    setHistory(to)
  }, [])
  const push = useCallback(
    (name: string, back: () => Promise<void>) => {
      set([...latest.current, { id: next.current++, name, back }].slice(-most))
    },
    [set],
  )
  const undo = useCallback(
    (step?: Done) => {
      const it = step ?? latest.current[latest.current.length - 1]
      if (!it || !latest.current.includes(it)) {
        say({ text: 'There is nothing to take back.' })
        return
      }
      const before = latest.current
      set(before.filter((d) => d !== it))
      it.back().catch((e: unknown) => {
        if (mayTryAgain(e)) set([...latest.current, it].sort((a, b) => a.id - b.id))
        say({ text: (e as Error).message, warn: true })
      })
    },
    [say, set],
  )
  return { history, push, undo }
}
