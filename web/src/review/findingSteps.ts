import { useCallback, useMemo } from 'react'
import { useAddFinding, useChangeFinding } from '../api/changes'
import api, { answer } from '../api/client'
import type { Finding, NewFinding, Patch, Smell } from '../api/types'
import { counted, figure } from '../theme/ink'
import { failed, type Tools } from './tools'
import { fieldName, stepOf, takeBack, type Changeable, type Step } from './undo'

/** Recording and changing findings, each change taken back field by field. */
export function useFindingSteps({ id, person, say, push }: Tools) {
  const { mutateAsync: addFinding } = useAddFinding(id)
  const { mutateAsync: changeFinding } = useChangeFinding(id)
  const now = useCallback(
    (finding: number) => answer(api.GET('/api/codebases/{id}/findings/{finding}', { params: { path: { id, finding } } })),
    [id],
  )
  /** Takes a change back; what somebody changed since is asked for. */
  const revert = useCallback(
    async (step: Step) => {
      const f = await now(step.id)
      const { patch, changed } = takeBack(step, f)
      if (Object.keys(patch).length > 0) await changeFinding({ finding: f, patch, by: person })
      if (changed.length === 0) {
        say({ text: `Taken back: ${f.title}` })
        return
      }
      const names = changed.map((k) => fieldName[k] ?? k).join(', ')
      const all = Object.fromEntries(changed.map((k) => [k, step.was[k]])) as Patch
      say({
        text: `Somebody has changed ${names} of “${f.title}” since; that is left as it is.`,
        warn: true,
        offer: {
          text: 'Take it back all the same',
          run: () => {
            now(step.id)
              .then((g) => changeFinding({ finding: g, patch: all, by: person }))
              .then(() => say({ text: `Taken back: ${f.title}` }), failed(say))
          },
        },
      })
    },
    [changeFinding, now, person, say],
  )
  const add = useCallback(
    async (f: NewFinding) => {
      const made = await addFinding({ by: person, ...f })
      push(`Recorded: ${made.title}`, async () => {
        // A remark that somebody has worked on since is not thrown away unasked.
        const there = await now(made.id)
        const drop = async (g: Finding) => {
          await changeFinding({ finding: g, patch: { deleted: true }, by: person })
          say({ text: `Taken back: ${g.title}` })
        }
        if (there.version === made.version || there.deleted) await drop(there)
        else
          say({
            text: `“${there.title}” was changed since it was recorded, so it is still there.`,
            warn: true,
            offer: { text: 'Delete it all the same', run: () => void drop(there).catch(failed(say)) },
          })
      })
      say({ text: `Recorded: ${made.title}`, undo: true })
      return made
    },
    [addFinding, changeFinding, now, person, push, say],
  )
  const addAll = useCallback(
    async (all: readonly Pick<Smell, 'id' | 'path'>[], survey: number) => {
      const made: Finding[] = []
      // One after the other: their order in the list is the order they were shown in.
      try {
        for (const s of all)
          made.push(await addFinding({ by: person, kind: 'improve', title: '', path: s.path, smell: s.id, survey }))
      } catch (e) {
        failed(say)(e)
      }
      if (made.length === 0) return
      const text = `Recorded: ${counted(made.length, 'finding')}`
      push(text, async () => {
        const there = await Promise.all(made.map((f) => now(f.id)))
        const own = there.filter((f, i) => f.version === made[i]?.version && !f.deleted)
        for (const f of own) await changeFinding({ finding: f, patch: { deleted: true }, by: person })
        const left = there.filter((f) => !f.deleted).length - own.length
        say({
          text: `Taken back: ${counted(own.length, 'finding')}${left > 0 ? `; ${figure(left)} changed since and left` : ''}`,
          warn: left > 0,
        })
      })
      if (made.length === all.length) say({ text, undo: true })
    },
    [addFinding, changeFinding, now, person, push, say],
  )
  const change = useCallback(
    async (f: Changeable, patch: Patch) => {
      const step = stepOf(f, patch)
      const made = await changeFinding({ finding: f, patch, by: person })
      push(patch.deleted ? `Deleted: ${f.title}` : `Changed ${changedWords(patch)} of “${f.title}”`, () => revert(step))
      if (patch.deleted) say({ text: `Deleted: ${f.title}`, undo: true })
      return made
    },
    [changeFinding, person, push, revert, say],
  )
  return useMemo(() => ({ add, addAll, change }), [add, addAll, change])
}

const changedWords = (p: Patch) =>
  Object.keys(p)
    .map((k) => fieldName[k as keyof Patch] ?? k)
    .join(', ')
