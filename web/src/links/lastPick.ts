import { useEffect, useRef } from 'react'

/**
 * What was picked last, by keys or otherwise. A second key may come before the
 * first is drawn: it goes on from what that picked, and what is drawn for the
 * first later is older than it.
 */
export function useLastPick(shown: string) {
  const last = useRef(shown)
  const sent = useRef<string | null>(null)
  useEffect(() => {
    if (sent.current !== null && sent.current !== shown) return
    sent.current = null
    last.current = shown
  }, [shown])
  return {
    now: () => last.current,
    /** Notes what a key picks. */
    byKey: (path: string) => {
      last.current = sent.current = path
    },
    /** Whatever is shown next counts, as when something is clicked. */
    otherwise: () => {
      sent.current = null
    },
  }
}
