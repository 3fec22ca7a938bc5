import type { Finding, Patch } from '../api/types'

/** A finding's fields as they are being written. */
export type Draft = Pick<Finding, 'kind' | 'state' | 'title' | 'text' | 'assignee'> & { labels: string }

export const draftOf = (f: Finding): Draft => ({
  kind: f.kind,
  state: f.state,
  title: f.title,
  text: f.text,
  assignee: f.assignee,
  labels: f.labels.join(', '),
})

/** The fields in the order they are told in. */
export const fields: (keyof Draft)[] = ['kind', 'state', 'title', 'text', 'assignee', 'labels']

/** What a draft changes of a finding. */
export function patchOf(from: Draft, to: Draft): Patch {
  const p: Record<string, unknown> = {}
  for (const k of fields)
    if (from[k] !== to[k])
      p[k] =
        k === 'labels'
          ? to.labels
              .split(',')
              .map((l) => l.trim())
              .filter(Boolean)
          : to[k]
  return p as Patch
}

/** The named fields of a draft. */
export function pickOf(d: Draft, keys: string[]): Partial<Draft> {
  return Object.fromEntries(fields.filter((k) => keys.includes(k)).map((k) => [k, d[k]])) as Partial<Draft>
}
