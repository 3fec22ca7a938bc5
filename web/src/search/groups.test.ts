import { expect, it } from 'vitest'
import type { SearchLine } from '../api/types'
import { hitGroups, searchState } from './groups'

const line = (path: string, sort: string, hits = 1): SearchLine => ({
  path,
  sort,
  hits: Array.from({ length: hits }, (_, i) => ({ line: i + 1, text: 'tare', start: 0, end: 4 })),
})

it('own code comes first, and what is not judged last, whatever comes in first', () => {
  const groups = hitGroups([
    line('archive/lib/a.js', 'others', 3),
    line('desk/weigh.test.ts', 'tests'),
    line('desk/weigh.ts', 'own', 2),
    line('bench/a.py', 'own'),
    line('bench/0.py', 'own'),
  ])
  expect(groups.map((g) => [g.sort, g.hits])).toEqual([
    ['own', 4],
    ['tests', 1],
    ['others', 3],
  ])
  expect(groups[0]?.folders.map((d) => [d.path, d.files.map((f) => f.path)])).toEqual([
    ['bench', ['bench/0.py', 'bench/a.py']],
    ['desk', ['desk/weigh.ts']],
  ])
})

it('says how far it is, and that there is more than is shown', () => {
  const found = { q: 'tare', files: [line('a.ts', 'own')], end: null, problem: '' }
  expect(searchState(found, 'tare')).toBe('1 file so far …')
  expect(searchState(found, 'tares')).toBe('…')
  expect(searchState({ ...found, end: { done: true, total: 2000, files: 1, more: true } }, 'tare')).toBe(
    '2,000 lines in 1 file, and there are more: narrow it',
  )
})
