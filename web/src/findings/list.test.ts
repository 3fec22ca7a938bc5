import { expect, it } from 'vitest'
import type { FindingList, Listed } from '../api/types'
import { whereFrom } from '../place/place'
import { between, groupTitle, listingFrom, nextPosition, queryOf, rowsOf, startsGroup } from './list'

const listed = (id: number, position = id): Listed => ({
  id,
  version: 1,
  kind: 'fix',
  state: 'noted',
  title: `finding ${id}`,
  path: 'desk',
  line: 0,
  end_line: 0,
  assignee: '',
  labels: [],
  position,
})

const stretch = (from: number, ids: number[], counts: number[]): FindingList => ({
  all: 9,
  count: 9,
  counter: 1,
  from,
  total: counts.reduce((a, b) => a + b, 0),
  rows: ids.map((id) => listed(id)),
  groups: counts.map((count, i) => ({ key: String(i), count })),
  people: [],
  labels: [],
})

it('rows that have not come yet hold their place', () => {
  const rows = rowsOf([stretch(0, [1, 2], [2, 3]), stretch(4, [5], [2, 3])])
  expect(rows.map((r) => r.f?.id ?? 0)).toEqual([1, 2, 0, 0, 5])
  expect(rows.map((r) => r.group)).toEqual([0, 0, 1, 1, 1])
  expect(new Set(rows.map((r) => r.id)).size).toBe(5)
  expect(rows.map((r, i) => startsGroup(r, rows[i - 1]))).toEqual([true, false, true, false, false])
})

it('a finding in two groups stands in two rows of their own', () => {
  const rows = rowsOf([stretch(0, [7, 7], [1, 1])])
  expect(rows.map((r) => r.id)).toEqual(['0:7', '1:7'])
})

it('a finding moves between its neighbours, and not where these are unknown', () => {
  const rows = rowsOf([stretch(0, [1, 2, 3], [4])])
  const at = (i: number) => rows[i] as (typeof rows)[number]
  expect(nextPosition(rows, at(0), 1)).toBe(2.5)
  expect(nextPosition(rows, at(1), -1)).toBe(0)
  expect(nextPosition(rows, at(0), -1)).toBeNull()
  expect(nextPosition(rows, at(1), 1)).toBeNull()
  expect(between(undefined, undefined)).toBe(1)
})

it('what is handed out is what is shown', () => {
  const w = whereFrom('findings', 1, new URLSearchParams('at=desk'))
  const l = listingFrom(w, new URLSearchParams('kind=keep&group=person&words=tare+scale'))
  expect(queryOf(l)).toBe('at=desk&words=tare+scale&kind=keep')
})

it('groups are called by their words', () => {
  expect([groupTitle('kind', 'keep'), groupTitle('person', ''), groupTitle('label', ''), groupTitle('place', '.')]).toEqual([
    'Keep',
    'nobody yet',
    'without a label',
    'the codebase',
  ])
})
