import { expect, test } from 'vitest'
import { lacks, nearestTests } from './way'

test('what is left out is said in plain words', () => {
  expect(lacks(['logic'])).toBe('Most routes beside it come through rules of their own; this one does not.')
  expect(lacks(['schema', 'data access'])).toContain('a check of what comes in and access to data')
})

test('the nearest tests are named, and no more than three', () => {
  const t = (path: string, distance: number) => ({ path, kind: 'unit', distance })
  const all = [t('d', 4), t('b', 1), t('a', 1), t('c', 2)]
  expect(nearestTests(all).map((x) => x.path)).toEqual(['a', 'b', 'c'])
  expect(all[0]?.path).toBe('d') // the list itself is left as it is
})
