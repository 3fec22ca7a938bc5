import type { QueryClient } from '@tanstack/react-query'
import { keys, touchedBy } from './keys'
import { within } from './within'
import type { CharterState, Finding, FindingList, Happened, Ledger, Listed, Margin } from './types'

/**
 * Has everything below a key asked for again. What is still on its way may be
 * from before the change, and its coming would count as the newest there is.
 * Where something is shown already that is given up for a new question; a first
 * answer, and one for a view that is not shown, is given up here.
 */
export function askAgain(qc: QueryClient, queryKey?: readonly unknown[]) {
  const late = qc
    .getQueryCache()
    .findAll({ queryKey, fetchStatus: 'fetching' })
    .filter((q) => q.state.data === undefined || !q.isActive())
  void qc.invalidateQueries({ queryKey })
  for (const q of late) {
    const only = { queryKey: q.queryKey, exact: true }
    void qc.cancelQueries(only).then(() => qc.invalidateQueries(only))
  }
}

/**
 * Brings a page up to date with a change of the review: findings are put in
 * place, everything else that may have changed is asked for again, and nothing
 * that can not have.
 */
export function take(qc: QueryClient, h: Happened) {
  const names = touchedBy(h.part)
  if (names === null) {
    askAgain(qc, h.codebase ? keys.codebase(h.codebase) : undefined)
    return
  }
  for (const name of names) askAgain(qc, keys.named(h.codebase, name))
  if (h.finding) takeFinding(qc, h.codebase, h.finding, h.more)
}

/** Puts a finding as it is now into everything that shows it. `more` is 1 for a new one, -1 for one that is gone. */
export function takeFinding(qc: QueryClient, id: number, f: Finding, more: number) {
  const patch = <T>(name: 'margin' | 'layout' | 'findings', put: (v: T, f: Finding, more: number) => Patched<T>) => {
    for (const [key, v] of qc.getQueriesData<T>({ queryKey: keys.named(id, name) })) {
      if (!v) {
        askAgain(qc, key) // its first answer may be from before the change
        continue
      }
      const next = put(v, f, more)
      if (next === 'missed') askAgain(qc, key)
      else if (next !== v) qc.setQueryData(key, next)
    }
  }
  patch<Margin>('margin', inMargin)
  patch<Ledger>('layout', inLedger)
  patch<FindingList>('findings', inList)
  qc.setQueryData<Finding>(keys.of(id, 'finding', f.id), (old) => (old && old.version > f.version ? old : f))
  if (f.smell && more !== 0) qc.setQueryData<string[]>(keys.of(id, 'recorded'), (old) => old && recordedWith(old, f.smell, more))
  qc.setQueryData<Known>(keys.of(id, 'people'), (old) => old && knownWith(old, f))
}

/** Puts a saved charter's text where the old one stood; what it says of the code is asked for again. One taken away may leave the codebase's own. */
export function takeCharter(qc: QueryClient, id: number, saved: { text: string; version: number }) {
  if (saved.text === '') return
  qc.setQueriesData<CharterState>(
    { queryKey: keys.named(id, 'charter') },
    (old) => old && { ...old, text: saved.text, version: saved.version, from: 'jantel' },
  )
}

/** Puts what was told of a charter while it was tried where the saved one stands, until that is told anew. */
export function takeTried(qc: QueryClient, id: number, tried: CharterState) {
  qc.setQueriesData<CharterState>(
    { queryKey: keys.named(id, 'charter') },
    (old) => old && { ...tried, version: Math.max(old.version, tried.version), from: 'jantel' },
  )
}

/** A value with a change in it, or `missed` where it must be asked for again. */
type Patched<T> = T | 'missed'

/** Whether a change is in what was asked for already, is the next one, or comes after others that were not heard of. */
function turn(counter: number, f: Finding): 'there' | 'next' | 'missed' {
  if (f.counter <= counter) return 'there'
  return f.counter === counter + 1 ? 'next' : 'missed'
}

export const rowOf = (f: Finding): Listed => ({
  id: f.id,
  version: f.version,
  kind: f.kind,
  state: f.state,
  title: f.title,
  path: f.place.path,
  line: f.place.line,
  end_line: f.place.end_line,
  assignee: f.assignee,
  labels: f.labels,
  position: f.position,
})

/** A margin with a finding's change in it. */
export function inMargin(m: Margin, f: Finding, more: number): Patched<Margin> {
  switch (turn(m.counter, f)) {
    case 'there':
      return m
    case 'missed':
      return 'missed'
  }
  if (!within(m.path, f.place.path)) return { ...m, counter: f.counter }
  const rest = m.findings.filter((x) => x.id !== f.id)
  // Beyond the rows it was sent a margin knows nothing of the order.
  if (more < 0 && m.recorded > m.findings.length) return 'missed'
  const there = !f.deleted && (rest.length < m.findings.length || m.findings.length === m.recorded)
  const findings = there ? [...rest, rowOf(f)].sort((a, b) => a.position - b.position || a.id - b.id) : rest
  return { ...m, counter: f.counter, recorded: m.recorded + more, findings }
}

/** A ledger with a finding's change in its counts. */
export function inLedger(l: Ledger, f: Finding, more: number): Patched<Ledger> {
  switch (turn(l.counter, f)) {
    case 'there':
      return l
    case 'missed':
      return 'missed'
  }
  if (more === 0) return { ...l, counter: f.counter }
  const holds = (r: Ledger['rows'][number]) => (r.file ? r.path === f.place.path : within(r.path, f.place.path))
  return { ...l, counter: f.counter, rows: l.rows.map((r) => (holds(r) ? { ...r, findings: r.findings + more } : r)) }
}

/** A list with a finding's change in it, as long as that moves no other row. */
export function inList(l: FindingList, f: Finding, more: number): Patched<FindingList> {
  switch (turn(l.counter, f)) {
    case 'there':
      return l
    case 'missed':
      return 'missed'
  }
  const at = l.rows.findIndex((r) => r.id === f.id)
  const old = l.rows[at]
  if (more !== 0 || !old || !sameStand(old, f)) return 'missed'
  const put = (r: Listed) => (r.id === f.id ? rowOf(f) : r)
  return { ...l, counter: f.counter, rows: l.rows.map(put) }
}

/** Whether a finding stands where it stood in every grouping and filter: all that differs are its words. */
function sameStand(r: Listed, f: Finding): boolean {
  return (
    r.position === f.position &&
    r.kind === f.kind &&
    r.state === f.state &&
    r.assignee === f.assignee &&
    r.labels.join() === f.labels.join() &&
    r.path === f.place.path
  )
}

/** Who findings are for and their labels, for the completion. */
interface Known {
  people: string[]
  labels: string[]
}

/** What is known, with a finding's own. */
export function knownWith(k: Known, f: Pick<Finding, 'assignee' | 'labels'>): Known {
  const joined = (all: string[], more: string[]) => [...new Set([...all, ...more.filter(Boolean)])].sort()
  return { people: joined(k.people, [f.assignee]), labels: joined(k.labels, f.labels) }
}

/** The smells that findings were made of, with one more or less. */
export function recordedWith(all: readonly string[], smell: string, more: number): string[] {
  const at = all.indexOf(smell)
  if (more > 0) return at < 0 ? [...all, smell] : [...all]
  return at < 0 ? [...all] : [...all.slice(0, at), ...all.slice(at + 1)]
}
