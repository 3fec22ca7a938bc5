import type { Finding, Kind, State } from '../api/types'
import { kinds, states } from './kinds'

export type Grouping = 'order' | 'place' | 'kind' | 'state' | 'person' | 'label'

export const groupings: { id: Grouping; title: string }[] = [
  { id: 'order', title: 'order' },
  { id: 'place', title: 'place' },
  { id: 'kind', title: 'kind' },
  { id: 'state', title: 'state' },
  { id: 'person', title: 'person' },
  { id: 'label', title: 'label' },
]

export interface Filter {
  at: string
  words: string
  kind: string
  state: string
  person: string
  label: string
}

const within = (place: string, path: string) => place === '.' || path === place || path.startsWith(`${place}/`)

/** Whether a finding passes the filter; an empty part lets everything pass. */
export function passes(f: Finding, w: Filter): boolean {
  const words = w.words.toLowerCase()
  return (
    within(w.at, f.place.path) &&
    (!w.kind || f.kind === w.kind) &&
    (!w.state || (w.state === 'open' ? f.state !== 'done' && f.state !== 'dropped' : f.state === w.state)) &&
    (!w.person || f.assignee === w.person) &&
    (!w.label || f.labels.includes(w.label)) &&
    (!words || `${f.title} ${f.text} ${f.place.path} ${f.place.definition}`.toLowerCase().includes(words))
  )
}

export interface Group {
  title: string
  findings: Finding[]
}

/** Findings in groups; the order set by hand is kept inside each. */
export function grouped(list: Finding[], by: Grouping): Group[] {
  if (by === 'order') return list.length ? [{ title: '', findings: list }] : []
  const keys = (f: Finding): string[] => {
    switch (by) {
      case 'place':
        return [f.place.path]
      case 'kind':
        return [f.kind]
      case 'state':
        return [f.state]
      case 'person':
        return [f.assignee]
      default:
        return f.labels.length ? f.labels : ['']
    }
  }
  const m = new Map<string, Finding[]>()
  for (const f of list)
    for (const k of keys(f)) {
      const l = m.get(k)
      if (l) l.push(f)
      else m.set(k, [f])
    }
  const rank = (k: string) => {
    if (by === 'kind') return kinds.findIndex((x) => x.kind === (k as Kind))
    if (by === 'state') return states.findIndex((x) => x.state === (k as State))
    return k === '' ? 1 : 0
  }
  const title = (k: string) => {
    if (by === 'kind') return kinds.find((x) => x.kind === k)?.word ?? k
    if (by === 'person') return k || 'nobody yet'
    if (by === 'label') return k ? `#${k}` : 'without a label'
    if (by === 'place') return k === '.' ? 'the codebase' : k
    return k
  }
  return [...m.entries()]
    .sort((a, b) => rank(a[0]) - rank(b[0]) || (a[0] < b[0] ? -1 : 1))
    .map(([k, findings]) => ({ title: title(k), findings }))
}

/** The position that puts a finding between its new neighbours. */
export function between(before: Finding | undefined, after: Finding | undefined): number {
  if (before && after) return (before.position + after.position) / 2
  if (before) return before.position + 1
  if (after) return after.position - 1
  return 1
}
