import { useCallback, useMemo, useRef, useState, type ReactNode } from 'react'
import api, { answer } from '../api/client'
import { useAddFinding, useChangeFinding, useFindings, useSettings } from '../api/queries'
import type { Finding, NewFinding, Patch } from '../api/types'
import { inverse, ReviewContext } from './review'

interface Said {
  text: string
  warn?: boolean
  undo?: boolean
}

const none: Finding[] = []

/** Keeps the review's actions, and what was done last, so that it can be undone. */
export function ReviewProvider({ id, children }: { id: number; children: ReactNode }) {
  const findings = useFindings(id).data ?? none
  const person = useSettings().data?.person ?? ''
  const { mutateAsync: addFinding } = useAddFinding(id)
  const { mutateAsync: changeFinding } = useChangeFinding(id)
  const done = useRef<{ id: number; patch: Patch }[]>([])
  const [said, setSaid] = useState<Said | null>(null)
  const timer = useRef(0)
  const say = useCallback((s: Said) => {
    setSaid(s)
    window.clearTimeout(timer.current)
    timer.current = window.setTimeout(() => setSaid(null), s.warn ? 12_000 : 7_000)
  }, [])

  const add = useCallback(
    async (f: NewFinding) => {
      const made = await addFinding({ ...f, by: person })
      done.current.push({ id: made.id, patch: { deleted: true } })
      say({ text: `Recorded: ${made.title}`, undo: true })
      return made
    },
    [addFinding, person, say],
  )
  const change = useCallback(
    async (f: Finding, patch: Patch) => {
      const made = await changeFinding({ finding: f, patch, by: person })
      done.current.push({ id: f.id, patch: inverse(f, patch) })
      if (patch.deleted) say({ text: `Deleted: ${f.title}`, undo: true })
      return made
    },
    [changeFinding, person, say],
  )
  const undo = useCallback(() => {
    const last = done.current.pop()
    if (!last) {
      say({ text: 'There is nothing to take back.' })
      return
    }
    const back = async () => {
      const now = await answer(api.GET('/api/codebases/{id}/findings/{finding}', { params: { path: { id, finding: last.id } } }))
      await changeFinding({ finding: now, patch: last.patch, by: person })
      say({ text: `Taken back: ${now.title}` })
    }
    back().catch((e: Error) => say({ text: e.message, warn: true }))
  }, [changeFinding, id, person, say])
  const value = useMemo(() => ({ add, change, undo, findings, person }), [add, change, undo, findings, person])
  return (
    <ReviewContext value={value}>
      {children}
      <div className={said ? 'said shown' : 'said'} role="status">
        {said && (
          <>
            <span className={said.warn ? 'warn' : ''}>{said.text}</span>
            {said.undo && (
              <button type="button" onClick={undo}>
                Undo <kbd>z</kbd>
              </button>
            )}
          </>
        )}
      </div>
    </ReviewContext>
  )
}
