import { describe, expect, it } from 'vitest'
import type { Finding } from '../api/types'
import { between, grouped, passes, type Filter } from './list'

const finding = (id: number, more: Partial<Finding> = {}, path = 'desk/src'): Finding => ({
  id,
  version: 1,
  codebase: 1,
  kind: 'improve',
  state: 'noted',
  title: `finding ${id}`,
  text: '',
  assignee: '',
  labels: [],
  position: id,
  place: { path, definition: '', line: 0, end_line: 0, survey: 1, hash: '', quote: '' },
  smell: '',
  rule: '',
  smell_path: '',
  smell_name: '',
  evidence: [],
  created: '2026-06-01T00:00:00Z',
  updated: '2026-06-01T00:00:00Z',
  author: '',
  deleted: false,
  ...more,
})
const all: Filter = { at: '.', words: '', kind: '', state: '', person: '', label: '' }

describe('the filter', () => {
  it('takes what lies at or below the place, and no folder of a like name', () => {
    expect(passes(finding(1), { ...all, at: 'desk' })).toBe(true)
    expect(passes(finding(1, {}, 'desktop'), { ...all, at: 'desk' })).toBe(false)
  })
  it('takes open findings together', () => {
    expect(passes(finding(1, { state: 'doing' }), { ...all, state: 'open' })).toBe(true)
    expect(passes(finding(1, { state: 'dropped' }), { ...all, state: 'open' })).toBe(false)
  })
  it.each([
    [{ words: 'SCALE' }, { text: 'reads the scale' }],
    [{ kind: 'ask' }, { kind: 'ask' as const }],
    [{ person: 'Odd' }, { assignee: 'Odd' }],
    [{ label: 'duties' }, { labels: ['desk', 'duties'] }],
  ])('narrows by %o', (f, have) => {
    expect(passes(finding(1, have), { ...all, ...f })).toBe(true)
    expect(passes(finding(1), { ...all, ...f })).toBe(false)
  })
})

describe('groups', () => {
  const list = [
    finding(1, { kind: 'keep', labels: ['a', 'b'] }),
    finding(2, { kind: 'redo', assignee: 'Odd' }, '.'),
    finding(3, { kind: 'redo', labels: ['b'] }),
  ]
  it('stand in the order of the work', () => {
    expect(grouped(list, 'kind').map((g) => g.title)).toEqual(['Redo', 'Keep'])
    expect(grouped(list, 'place').map((g) => g.title)).toEqual(['the codebase', 'desk/src'])
    expect(grouped(list, 'person').map((g) => g.title)).toEqual(['Odd', 'nobody yet'])
  })
  it('name a finding under each of its labels', () => {
    expect(grouped(list, 'label').map((g) => [g.title, g.findings.map((f) => f.id)])).toEqual([
      ['#a', [1]],
      ['#b', [1, 3]],
      ['without a label', [2]],
    ])
  })
  it('of nothing are none', () => {
    expect(grouped([], 'order')).toEqual([])
  })
})

it('a finding is put between its new neighbours', () => {
  const [a, b] = [finding(1), finding(2)]
  expect(between(a, b)).toBe(1.5)
  expect(between(undefined, a)).toBeLessThan(1)
  expect(between(b, undefined)).toBeGreaterThan(2)
})
