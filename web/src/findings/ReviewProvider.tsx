import { useCallback, useMemo, useRef, useState, type ReactNode } from 'react'
import api, { answer, Problem } from '../api/client'
import { useAddFinding, useChangeFinding, useFindings, useMarkRead, useSettings, useSilence, useUndoMarks } from '../api/queries'
import type { Finding, NewFinding, Patch, Smell } from '../api/types'
import { counted, figure } from '../theme/ink'
import { ReviewContext } from './review'
import { fieldName, stepOf, takeBack, type Step } from './undo'

interface Said {
  text: string
  warn?: boolean
  undo?: boolean
  /** What can be done all the same, with its words. */
  offer?: { text: string; run: () => void }
}

const none: Finding[] = []

/** Keeps the review's actions, and what was done last, so that it can be undone. */
export function ReviewProvider({ id, children }: { id: number; children: ReactNode }) {
  const findings = useFindings(id).data ?? none
  const person = useSettings().data?.person ?? ''
  const { mutateAsync: addFinding } = useAddFinding(id)
  const { mutateAsync: changeFinding } = useChangeFinding(id)
  const { mutateAsync: markRead } = useMarkRead(id)
  const { mutateAsync: undoMarks } = useUndoMarks(id)
  const { mutateAsync: setSilence } = useSilence(id)
  /** How to take back what was done, the newest last. */
  const done = useRef<(() => Promise<void>)[]>([])
  const [said, setSaid] = useState<Said | null>(null)
  const timer = useRef(0)
  const say = useCallback((s: Said) => {
    setSaid(s)
    window.clearTimeout(timer.current)
    timer.current = window.setTimeout(() => setSaid(null), s.offer ? 30_000 : s.warn ? 12_000 : 7_000)
  }, [])
  const fail = useCallback((e: unknown) => say({ text: (e as Error).message, warn: true }), [say])

  /** Takes a change back field by field; what somebody changed since is asked for. */
  const revert = useCallback(
    async (step: Step) => {
      const at = { params: { path: { id, finding: step.id } } }
      const now = await answer(api.GET('/api/codebases/{id}/findings/{finding}', at))
      const { patch, changed } = takeBack(step, now)
      if (Object.keys(patch).length > 0) await changeFinding({ finding: now, patch, by: person })
      if (changed.length === 0) {
        say({ text: `Taken back: ${now.title}` })
        return
      }
      const names = changed.map((k) => fieldName[k] ?? k).join(', ')
      const all = Object.fromEntries(changed.map((k) => [k, step.was[k]])) as Patch
      say({
        text: `Somebody has changed ${names} of “${now.title}” since; that is left as it is.`,
        warn: true,
        offer: {
          text: 'Take it back all the same',
          run: () => {
            answer(api.GET('/api/codebases/{id}/findings/{finding}', at))
              .then((f) => changeFinding({ finding: f, patch: all, by: person }))
              .then(() => say({ text: `Taken back: ${now.title}` }), fail)
          },
        },
      })
    },
    [changeFinding, fail, id, person, say],
  )
  const add = useCallback(
    async (f: NewFinding) => {
      const made = await addFinding({ ...f, by: person })
      done.current.push(async () => {
        // A remark that somebody has worked on since is not thrown away unasked.
        const at = { params: { path: { id, finding: made.id } } }
        const now = await answer(api.GET('/api/codebases/{id}/findings/{finding}', at))
        const drop = async (f: Finding) => {
          await changeFinding({ finding: f, patch: { deleted: true }, by: person })
          say({ text: `Taken back: ${f.title}` })
        }
        if (now.version === made.version || now.deleted) await drop(now)
        else
          say({
            text: `“${now.title}” was changed since it was recorded, so it is still there.`,
            warn: true,
            offer: { text: 'Delete it all the same', run: () => void drop(now).catch(fail) },
          })
      })
      say({ text: `Recorded: ${made.title}`, undo: true })
      return made
    },
    [addFinding, changeFinding, fail, id, person, say],
  )
  const change = useCallback(
    async (f: Finding, patch: Patch) => {
      const step = stepOf(f, patch)
      const made = await changeFinding({ finding: f, patch, by: person })
      done.current.push(() => revert(step))
      if (patch.deleted) say({ text: `Deleted: ${f.title}`, undo: true })
      return made
    },
    [changeFinding, person, revert, say],
  )
  const mark = useCallback(
    (path: string, read: boolean) => {
      markRead({ path, read, by: person }).then((m) => {
        if (m.changed === 0) {
          say({ text: read ? 'It was marked as looked at already.' : 'There was no mark to take away.' })
          return
        }
        done.current.push(async () => {
          const u = await undoMarks(m.step)
          const left = u.left > 0 ? `; ${figure(u.left)} marked otherwise since were left alone` : ''
          say({ text: `Taken back: ${counted(u.back, 'mark')} ${u.back === 1 ? 'is' : 'are'} as before${left}` })
        })
        const what =
          m.files === 1 ? path : `${counted(m.changed, 'file')} ${path === '.' ? 'of the whole codebase' : `below ${path}`}`
        say({ text: read ? `Marked as looked at: ${what}` : `No longer marked as looked at: ${what}`, undo: true })
      }, fail)
    },
    [fail, markRead, person, say, undoMarks],
  )
  const silence = useCallback(
    (s: Pick<Smell, 'id' | 'message' | 'silenced'>, reason: string) => {
      const was = s.silenced ?? ''
      setSilence({ smell: s.id, reason, by: person }).then(() => {
        done.current.push(async () => {
          await setSilence({ smell: s.id, reason: was, by: person })
          say({ text: was ? 'Taken back: it is silenced again' : 'Taken back: it counts again' })
        })
        say({ text: reason ? `Silenced: ${s.message.replace(/\*/g, '')}` : 'It counts again', undo: true })
      }, fail)
    },
    [fail, person, say, setSilence],
  )
  const undo = useCallback(() => {
    const last = done.current.pop()
    if (!last) {
      say({ text: 'There is nothing to take back.' })
      return
    }
    last().catch((e: unknown) => {
      // What could not be sent can be tried again; what is gone can not.
      if (!(e instanceof Problem && e.status === 404)) done.current.push(last)
      fail(e)
    })
  }, [fail, say])
  const value = useMemo(
    () => ({ add, change, mark, silence, undo, findings, person }),
    [add, change, mark, silence, undo, findings, person],
  )
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
            {said.offer && (
              <button type="button" onClick={said.offer.run}>
                {said.offer.text}
              </button>
            )}
          </>
        )}
      </div>
    </ReviewContext>
  )
}
