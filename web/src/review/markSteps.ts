import { useCallback, useMemo } from 'react'
import { useMarkRead, useUndoMarks } from '../api/changes'
import { counted, figure } from '../theme/ink'
import { failed, type Tools } from './tools'

/** Read marks, each step of them taken back as a whole. */
export function useMarkSteps({ id, person, say, push }: Tools) {
  const { mutateAsync: markRead } = useMarkRead(id)
  const { mutateAsync: undoMarks } = useUndoMarks(id)
  const mark = useCallback(
    (path: string, read: boolean) => {
      markRead({ path, read, by: person }).then((m) => {
        if (m.changed === 0) {
          say({ text: read ? 'It was marked as looked at already.' : 'There was no mark to take away.' })
          return
        }
        const what =
          m.files === 1 ? path : `${counted(m.changed, 'file')} ${path === '.' ? 'of the whole codebase' : `below ${path}`}`
        const text = read ? `Marked as looked at: ${what}` : `No longer marked as looked at: ${what}`
        push(text, async () => {
          const u = await undoMarks({ step: m.step, by: person })
          const left = u.left > 0 ? `; ${figure(u.left)} marked otherwise since were left alone` : ''
          say({ text: `Taken back: ${counted(u.back, 'mark')} ${u.back === 1 ? 'is' : 'are'} as before${left}` })
        })
        say({ text, undo: true })
      }, failed(say))
    },
    [markRead, person, push, say, undoMarks],
  )
  return useMemo(() => ({ mark }), [mark])
}
