import { QueryClient, QueryObserver } from '@tanstack/react-query'
import { expect, it, vi } from 'vitest'
import { keys } from './keys'
import { inLedger, inList, inMargin, knownWith, recordedWith, rowOf, take, takeCharter, takeTried } from './live'
import type { Finding, FindingList, Happened, Ledger, Margin } from './types'

const finding = (over: Partial<Omit<Finding, 'place'>> & { path?: string } = {}): Finding => {
  const { path = 'desk/src/weigh.ts', ...rest } = over
  return {
    id: 1,
    version: 1,
    codebase: 1,
    kind: 'fix',
    state: 'noted',
    title: 'The tare is lost',
    text: '',
    assignee: '',
    labels: [],
    position: 1,
    place: { path, definition: '', line: 0, end_line: 0, survey: 1, hash: '', quote: '' },
    smell: '',
    rule: '',
    smell_path: '',
    smell_name: '',
    evidence: [],
    created: '2026-11-28T10:00:00Z',
    author: '',
    updated: '2026-11-28T10:00:00Z',
    deleted: false,
    counter: 5,
    ...rest,
  }
}

const margin = (path: string, rows: Finding[] = [], counter = 4) =>
  ({ path, counter, recorded: rows.length, findings: rows.map(rowOf) }) as unknown as Margin

it('a new finding stands in the margin of its place and of all around it, and in no other', () => {
  const f = finding()
  for (const path of ['.', 'desk', 'desk/src/weigh.ts'])
    expect(inMargin(margin(path), f, 1)).toMatchObject({ counter: 5, recorded: 1, findings: [{ id: 1 }] })
  for (const path of ['bench', 'des', 'desk/src/weigh'])
    expect(inMargin(margin(path), f, 1)).toMatchObject({ counter: 5, recorded: 0, findings: [] })
})

it('a change that is in it already changes nothing, and one after a gap asks anew', () => {
  const m = margin('.', [finding()], 5)
  expect(inMargin(m, finding(), 1)).toBe(m)
  expect(inMargin(margin('.', [], 3), finding(), 1)).toBe('missed')
})

it('a finding that was moved stands at its new rank', () => {
  const m = margin('.', [finding({ id: 1, position: 1 }), finding({ id: 2, position: 2 })])
  const next = inMargin(m, finding({ id: 1, position: 3, version: 2 }), 0)
  expect(next).toMatchObject({ recorded: 2, findings: [{ id: 2 }, { id: 1 }] })
})

it('what is gone is gone, and comes back when it is taken back', () => {
  const gone = inMargin(margin('.', [finding()]), finding({ deleted: true, version: 2 }), -1)
  expect(gone).toMatchObject({ recorded: 0, findings: [] })
  expect(inMargin(gone as Margin, finding({ version: 3, counter: 6 }), 1)).toMatchObject({
    recorded: 1,
    findings: [{ version: 3 }],
  })
})

it('a margin that was sent only some rows asks again when one of them goes', () => {
  const m = { ...margin('.', [finding()]), recorded: 90 }
  expect(inMargin(m, finding({ deleted: true }), -1)).toBe('missed')
  expect(inMargin(m, finding({ id: 2 }), 1)).toMatchObject({ recorded: 91, findings: [{ id: 1 }] })
})

it('a ledger counts it at its file and at every folder around', () => {
  const row = (path: string, file = false) => ({ path, file, findings: 2 })
  const l = { counter: 4, rows: [row('.'), row('desk'), row('desk/src'), row('bench'), row('desk/src/weigh.ts', true)] }
  const next = inLedger(l as unknown as Ledger, finding(), 1) as Ledger
  expect(next.rows.map((r) => r.findings)).toEqual([3, 3, 3, 2, 3])
})

it('a list takes new words in place, and asks again when rows move', () => {
  const l = { counter: 4, rows: [rowOf(finding())] } as unknown as FindingList
  expect(inList(l, finding({ title: 'The tare is kept', version: 2 }), 0)).toMatchObject({
    rows: [{ title: 'The tare is kept' }],
  })
  for (const f of [finding({ state: 'done' }), finding({ position: 9 }), finding({ labels: ['scales'] }), finding({ id: 7 })])
    expect(inList(l, f, 0)).toBe('missed')
  expect(inList(l, finding({ id: 7 }), 1)).toBe('missed')
})

it('a smell is recorded once, however often it is heard of', () => {
  expect(recordedWith(['a'], 'b', 1)).toEqual(['a', 'b'])
  expect(recordedWith(['a', 'b'], 'b', 1)).toEqual(['a', 'b'])
  expect(recordedWith(['a', 'b'], 'a', -1)).toEqual(['b'])
  expect(recordedWith(['a'], 'c', -1)).toEqual(['a'])
})

it('who a finding is for and its labels are offered from then on, each once', () => {
  const known = { people: ['Ines'], labels: ['scales'] }
  expect(knownWith(known, { assignee: 'Bo', labels: ['scales', 'print'] })).toEqual({
    people: ['Bo', 'Ines'],
    labels: ['print', 'scales'],
  })
  expect(knownWith(known, { assignee: '', labels: [] })).toEqual(known)
})

const happened = (part: Happened['part'], more: Partial<Happened> = {}): Happened => ({
  codebase: 1,
  part,
  what: part,
  by: '',
  more: 0,
  ...more,
})

it('only what may have changed is asked for again', () => {
  const names = ['overview', 'layout', 'margin', 'weave', 'dependencies', 'findings', 'arrangement', 'status'] as const
  const stale = (h: Happened) => {
    const qc = new QueryClient()
    for (const id of [1, 2])
      for (const n of names) qc.setQueryData(keys.of(id, n), n === 'layout' ? { counter: 4, rows: [] } : {})
    take(qc, h)
    const old = (id: number) => names.filter((n) => qc.getQueryState(keys.of(id, n))?.isInvalidated)
    expect(old(2)).toEqual(h.codebase === 2 ? names : [])
    return old(1)
  }
  expect(stale(happened('marks'))).toEqual(['layout', 'margin'])
  expect(stale(happened('arrangement'))).toEqual(['dependencies', 'arrangement'])
  expect(stale(happened('judged'))).toEqual(['overview', 'layout', 'margin', 'weave', 'dependencies'])
  expect(stale(happened('surveys', { codebase: 2 }))).toEqual([])
})

it('an answer on its way from before a change is asked for anew', async () => {
  const qc = new QueryClient()
  const answers: ((v: string) => void)[] = []
  const observer = new QueryObserver(qc, {
    queryKey: keys.of(1, 'status'),
    queryFn: () => new Promise<string>((done) => answers.push(done)),
    staleTime: Infinity,
  })
  const stop = observer.subscribe(() => undefined)
  await vi.waitFor(() => expect(answers).toHaveLength(1))
  take(qc, happened('surveys'))
  await vi.waitFor(() => expect(answers).toHaveLength(2))
  answers[0]?.('running')
  answers[1]?.('finished')
  await vi.waitFor(() => expect(qc.getQueryData(keys.of(1, 'status'))).toBe('finished'))
  stop()
})

it('an answer on its way to a view that was left does not count as newer than the change', async () => {
  const qc = new QueryClient({ defaultOptions: { queries: { staleTime: Infinity } } })
  const answers: ((v: string) => void)[] = []
  const o = { queryKey: keys.of(1, 'status'), queryFn: () => new Promise<string>((done) => answers.push(done)) }
  qc.setQueryData(o.queryKey, 'none')
  const leave = new QueryObserver(qc, o).subscribe(() => undefined)
  void qc.invalidateQueries(o)
  await vi.waitFor(() => expect(answers).toHaveLength(1))
  leave()
  take(qc, happened('surveys'))
  answers[0]?.('running')
  await vi.waitFor(() => expect(qc.getQueryState(o.queryKey)?.fetchStatus).toBe('idle'))
  const stop = new QueryObserver(qc, o).subscribe(() => undefined)
  await vi.waitFor(() => expect(answers).toHaveLength(2))
  answers[1]?.('finished')
  await vi.waitFor(() => expect(qc.getQueryData(o.queryKey)).toBe('finished'))
  stop()
})

it('a finding reaches every view that shows it without a question', () => {
  const qc = new QueryClient()
  qc.setQueryData(keys.view('margin', { id: 1, survey: 0, at: '.' }), margin('.'))
  qc.setQueryData(keys.of(1, 'recorded'), ['x'])
  take(qc, happened('findings', { finding: finding({ smell: 'y' }), more: 1 }))
  expect(qc.getQueryData(keys.view('margin', { id: 1, survey: 0, at: '.' }))).toMatchObject({ recorded: 1 })
  expect(qc.getQueryData(keys.of(1, 'recorded'))).toEqual(['x', 'y'])
  expect(
    qc
      .getQueryCache()
      .getAll()
      .filter((q) => q.state.isInvalidated),
  ).toEqual([])
})

it('a first list that is on its way when a finding comes in is asked for anew', async () => {
  const qc = new QueryClient()
  let asked = 0
  const answers: ((l: FindingList) => void)[] = []
  const o = new QueryObserver(qc, {
    queryKey: keys.of(1, 'findings', 'all'),
    queryFn: () =>
      new Promise<FindingList>((done) => {
        asked++
        answers.push(done)
      }),
  })
  const stop = o.subscribe(() => undefined)
  await vi.waitFor(() => expect(asked).toBe(1))
  take(qc, { codebase: 1, part: 'findings', what: 'added', by: 'Ada', more: 1, finding: finding() } as Happened)
  await vi.waitFor(() => expect(asked).toBe(2))
  answers[0]?.({ counter: 4, rows: [] } as unknown as FindingList)
  answers[1]?.({ counter: 5, rows: [rowOf(finding())] } as unknown as FindingList)
  await vi.waitFor(() => expect(o.getCurrentResult().data).toMatchObject({ counter: 5 }))
  stop()
})

it('a saved charter stands in the page before what it says of the code is known', () => {
  const qc = new QueryClient()
  const key = keys.view('charter', { id: 1, survey: 0, at: '.' })
  qc.setQueryData(key, { text: 'old', version: 3, from: 'codebase', breaches: [] })
  takeCharter(qc, 1, { text: 'new', version: 4 })
  expect(qc.getQueryData(key)).toMatchObject({ text: 'new', version: 4, from: 'jantel', breaches: [] })
  takeTried(qc, 1, { text: 'new', version: 3, from: 'jantel', breaches: [{ from: 'a' }] } as never)
  expect(qc.getQueryData(key)).toMatchObject({ version: 4, breaches: [{ from: 'a' }] })
  // One that was taken away may leave the codebase's own: that has to be asked for.
  takeCharter(qc, 1, { text: '', version: 5 })
  expect(qc.getQueryData(key)).toMatchObject({ text: 'new' })
})
