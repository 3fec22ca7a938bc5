import { expect, test } from 'vitest'
import { lacks, nearestTests, unasked } from './way'

test('what is left out is said in plain words', () => {
  expect(lacks(['logic'])).toBe('Most routes beside it come through rules of their own; this one does not.')
  expect(lacks(['schema', 'data access'])).toContain('a check of what comes in and access to data')
})

test('that nobody is asked is said only where most others ask', () => {
  const say = (guards: string[], guarded: number, beside: number) => unasked({ guards, guarded, beside })
  expect(say([], 3, 4)).toBe('Nothing is asked before it answers, where 3 of 4 other routes of its file ask.')
  expect(say(['staff'], 3, 4)).toBe('')
  expect(say([], 1, 4)).toBe('')
  expect(say([], 0, 0)).toBe('')
})

test('the nearest tests are named, and no more than three', () => {
  const t = (path: string, distance: number) => ({ path, kind: 'unit', distance })
  const all = [t('d', 4), t('b', 1), t('a', 1), t('c', 2)]
  expect(nearestTests(all).map((x) => x.path)).toEqual(['a', 'b', 'c'])
  expect(all[0]?.path).toBe('d') // the list itself is left as it is
})
