import { useQueryClient, type QueryClient } from '@tanstack/react-query'
import { useCallback, useMemo } from 'react'
import { useArrange, useOverrule, useSaveCharter, useSetBrief, useSilence } from '../api/changes'
import api, { answer, Problem } from '../api/client'
import { keys } from '../api/keys'
import type { Brief, Overrule, Smell } from '../api/types'
import type { ByHand } from './review'
import { failed, type Tools } from './tools'

/** One thing set by hand, as it was and as it was set; null for nothing. */
export interface HandStep {
  kind: Overrule['kind']
  target: string
  was: string | null
  set: string | null
}

/** What is set by hand for a kind and a target; null where nothing is. */
export const valueOf = (all: readonly Overrule[], kind: string, target: string): string | null =>
  all.find((o) => o.kind === kind && o.target === target)?.value ?? null

/** The steps that setting these comes to; what is as asked already is none. */
export function handSteps(before: readonly Overrule[], all: readonly ByHand[]): HandStep[] {
  return all
    .map((o) => ({
      kind: o.kind,
      target: o.target,
      was: valueOf(before, o.kind, o.target),
      set: o.gone ? null : o.value,
    }))
    .filter((s) => s.was !== s.set)
}

/** Parts steps into those that still stand as they were set and those that somebody changed since. */
export function stillMine(now: readonly Overrule[], steps: readonly HandStep[]): { mine: HandStep[]; theirs: HandStep[] } {
  const mine = steps.filter((s) => valueOf(now, s.kind, s.target) === s.set)
  return { mine, theirs: steps.filter((s) => !mine.includes(s)) }
}

/** What silencing smells, or letting them count again, is called in the history. */
export function silencedText(all: readonly Pick<Smell, 'message'>[], reason: string): string {
  const [first] = all
  if (all.length !== 1 || !first) return `${reason ? 'Dismissed' : 'They count again'}: ${all.length} smells`
  return reason ? `Dismissed: ${first.message.replace(/\*/g, '')}` : 'It counts again'
}

const overrulesNow = (qc: QueryClient, id: number) =>
  qc.fetchQuery({
    queryKey: keys.of(id, 'overrules'),
    queryFn: () => answer(api.GET('/api/codebases/{id}/overrules', { params: { path: { id } } })),
    staleTime: 0,
  })

/** What the lead sets and what is judged by it: silences, things set by hand, arrangements, brief and charter. */
export function useJudgedSteps({ id, person, say, push }: Tools) {
  const qc = useQueryClient()
  const { mutateAsync: putSilences } = useSilence(id)
  const { mutateAsync: putOverrule } = useOverrule(id)
  const { mutateAsync: putArrangement } = useArrange(id)
  const { mutateAsync: putBrief } = useSetBrief(id)
  const { mutateAsync: putCharter } = useSaveCharter(id)
  const silence = useCallback(
    (all: readonly Pick<Smell, 'id' | 'message' | 'silenced'>[], reason: string) => {
      const was = all.map((s) => ({ smell: s.id, reason: s.silenced ?? '' }))
      putSilences({ all: all.map((s) => ({ smell: s.id, reason })), by: person }).then(() => {
        const text = silencedText(all, reason)
        push(text, async () => {
          await putSilences({ all: was, by: person })
          say({ text: `Taken back: ${text}` })
        })
        say({ text, undo: true })
      }, failed(say))
    },
    [person, push, putSilences, say],
  )
  const overrule = useCallback(
    async (name: string, all: readonly ByHand[]) => {
      const put = (s: HandStep, to: string | null) =>
        putOverrule({ kind: s.kind, target: s.target, value: to ?? '', by: person, gone: to === null })
      const steps = handSteps(await overrulesNow(qc, id), all)
      for (const s of steps) await put(s, s.set)
      if (steps.length === 0) {
        say({ text: 'It was set so already.' })
        return
      }
      push(name, async () => {
        const { mine, theirs } = stillMine(await overrulesNow(qc, id), steps)
        for (const s of mine) await put(s, s.was)
        const left = theirs.length > 0 ? `; somebody has set ${theirs.map((s) => s.target).join(', ')} otherwise since` : ''
        say({ text: `Taken back: ${name}${left}`, warn: theirs.length > 0 })
      })
      say({ text: name, undo: true })
    },
    [id, person, push, putOverrule, qc, say],
  )
  const arrange = useCallback(
    async (place: string, boxes: string[], was: string[]) => {
      await putArrangement({ place, boxes, by: person })
      push('Arranged the drawing', async () => {
        const now = await answer(api.GET('/api/codebases/{id}/arrangement', { params: { path: { id }, query: { at: place } } }))
        if (now.boxes.join('\n') !== boxes.join('\n')) {
          say({ text: 'Somebody has arranged this drawing since; it is left as it is.', warn: true })
          return
        }
        await putArrangement({ place, boxes: was, by: person })
        say({ text: 'Taken back: the drawing stands as before' })
      })
      say({ text: boxes.length > 0 ? 'Arranged the drawing' : 'The drawing is as it is reckoned', undo: true })
    },
    [id, person, push, putArrangement, say],
  )
  /** A text with a version: taken back only while nobody has saved another one. */
  const versioned = useCallback(
    async (
      name: string,
      save: (version: number) => Promise<{ version: number }>,
      restore: (version: number) => Promise<unknown>,
      version: number,
    ) => {
      const made = await save(version)
      push(name, async () => {
        try {
          await restore(made.version)
          say({ text: `Taken back: ${name}` })
        } catch (e) {
          if (!(e instanceof Problem && e.status === 412)) throw e
          say({ text: `Somebody has changed it since; it is left as it is: ${name}`, warn: true })
        }
      })
      say({ text: name, undo: true })
    },
    [push, say],
  )
  const setBrief = useCallback(
    (to: Brief, was: Brief, version: number) =>
      versioned(
        'Changed the brief',
        (v) => putBrief({ brief: to, version: v, by: person }),
        (v) => putBrief({ brief: was, version: v, by: person }),
        version,
      ),
    [person, putBrief, versioned],
  )
  const setCharter = useCallback(
    (to: string, was: string, version: number) =>
      versioned(
        to ? 'Saved the charter' : 'Took the charter away',
        (v) => putCharter({ text: to, version: v, by: person }),
        (v) => putCharter({ text: was, version: v, by: person }),
        version,
      ),
    [person, putCharter, versioned],
  )
  return useMemo(() => ({ silence, overrule, arrange, setBrief, setCharter }), [silence, overrule, arrange, setBrief, setCharter])
}
