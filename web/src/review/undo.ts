import type { Finding, Patch } from '../api/types'

/** A finding, or as much of it as is about to be changed. */
export type Changeable = Pick<Finding, 'id' | 'version' | 'title'> & Partial<Finding>

/** What a change of a finding did: each field as it was, and as it was set. */
export interface Step {
  id: number
  title: string
  was: Patch
  set: Patch
}

export function stepOf(f: Changeable, patch: Patch): Step {
  const was = Object.fromEntries(Object.keys(patch).map((k) => [k, f[k as keyof Patch]])) as Patch
  return { id: f.id, title: f.title, was, set: patch }
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b)

/**
 * Parts a step into what can be taken back and what somebody has changed
 * since: a field is taken back only while it still is as the step set it.
 */
export function takeBack(step: Step, now: Finding): { patch: Patch; changed: (keyof Patch)[] } {
  const patch: Record<string, unknown> = {}
  const changed: (keyof Patch)[] = []
  for (const k of Object.keys(step.set) as (keyof Patch)[]) {
    if (same(now[k], step.set[k])) patch[k] = step.was[k]
    else if (!same(now[k], step.was[k])) changed.push(k)
  }
  return { patch: patch as Patch, changed }
}

/** What a field is called in a sentence. */
export const fieldName: Partial<Record<keyof Patch, string>> = {
  assignee: 'who it is for',
  position: 'its rank',
  deleted: 'whether it is deleted',
}
