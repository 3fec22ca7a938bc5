import { useCallback, useRef, useState } from 'react'

/** What is said at the foot of the page for a while. */
export interface Said {
  text: string
  warn?: boolean
  undo?: boolean
  /** What can be done all the same, with its words. */
  offer?: { text: string; run: () => void }
}

export type Say = (s: Said) => void

/** How long something said stands there, in milliseconds. */
const stands = (s: Said) => (s.offer ? 30_000 : s.warn ? 12_000 : 7_000)

export function useSaid(): { said: Said | null; say: Say } {
  const [said, setSaid] = useState<Said | null>(null)
  const timer = useRef(0)
  const say = useCallback((s: Said) => {
    setSaid(s)
    window.clearTimeout(timer.current)
    timer.current = window.setTimeout(() => setSaid(null), stands(s))
  }, [])
  return { said, say }
}

export function SaidLine({ said, onUndo }: { said: Said | null; onUndo: () => void }) {
  return (
    <div className={said ? 'said shown' : 'said'} role="status">
      {said && (
        <>
          <span className={said.warn ? 'warn' : ''}>{said.text}</span>
          {said.undo && (
            <button type="button" onClick={onUndo}>
              Undo <kbd>z</kbd>
            </button>
          )}
          {said.offer && (
            <button type="button" onClick={said.offer.run}>
              {said.offer.text}
            </button>
          )}
        </>
      )}
    </div>
  )
}
