import { expect, test } from 'vitest'
import type { Finding } from '../api/types'
import { stepOf, takeBack } from './undo'

const finding = (more: Partial<Finding>): Finding =>
  ({ id: 3, title: 'Two scales', state: 'noted', kind: 'fix', assignee: '', labels: ['scale'], ...more }) as Finding

test('a field that nobody changed since is taken back', () => {
  const step = stepOf(finding({}), { state: 'agreed', title: 'Two scales differ' })
  expect(takeBack(step, finding({ state: 'agreed', title: 'Two scales differ' }))).toEqual({
    patch: { state: 'noted', title: 'Two scales' },
    changed: [],
  })
})

test("a colleague's newer change is left, and the rest is taken back", () => {
  const step = stepOf(finding({}), { state: 'agreed', labels: ['scale', 'unit'] })
  expect(takeBack(step, finding({ state: 'done', labels: ['scale', 'unit'] }))).toEqual({
    patch: { labels: ['scale'] },
    changed: ['state'],
  })
})

test('what is as it was before already needs nothing', () => {
  const step = stepOf(finding({}), { state: 'agreed' })
  expect(takeBack(step, finding({ state: 'noted', title: 'Other' }))).toEqual({ patch: {}, changed: [] })
})

test('fields the step did not touch stay as they are', () => {
  const step = stepOf(finding({}), { assignee: 'Maren' })
  expect(takeBack(step, finding({ assignee: 'Maren', title: 'Other', state: 'done' })).patch).toEqual({ assignee: '' })
})
