import { useCallback, useMemo } from 'react'
import { useAddPage, useChangePage } from '../api/changes'
import type { Page } from '../api/types'
import type { Tools } from './tools'

/** Pages that are written, changed and taken away; each step can be taken back while nobody has gone on from it. */
export function usePageSteps({ id, person, say, push }: Tools) {
  const { mutateAsync: add } = useAddPage(id)
  const { mutateAsync: put } = useChangePage(id)
  const addPage = useCallback(
    async (kind: Page['kind'], title: string, text: string) => {
      const made = await add({ kind, title, text, by: person })
      push(`Wrote ${title}`, async () => {
        await put({ page: made.id, title, text, version: made.version, gone: true, by: person })
        say({ text: `Taken back: wrote ${title}` })
      })
      return made
    },
    [add, person, push, put, say],
  )
  const changePage = useCallback(
    async (p: Page, to: { title: string; text: string; gone?: boolean }) => {
      const made = await put({ page: p.id, ...to, version: p.version, by: person })
      const text = to.gone ? `Took away ${p.title}` : `Changed ${to.title}`
      push(text, async () => {
        await put({ page: p.id, title: p.title, text: p.text, version: made.version, by: person })
        say({ text: `Taken back: ${text}` })
      })
      say({ text, undo: true })
      return made
    },
    [person, push, put, say],
  )
  return useMemo(() => ({ addPage, changePage }), [addPage, changePage])
}
