import { expect, test } from 'vitest'
import { acts, outOf, byTie } from './definition'

test('what is not told is counted in words', () => {
  expect(outOf(1)).toBe('1 call of this file was not followed: built in, or of what is not told.')
  expect(outOf(1200)).toContain('1,200 calls of this file were')
  expect([{ kind: 'call' }, { kind: 'read' }, { kind: 'inherit' }].filter(acts)).toHaveLength(2)
})

test('the places of a rename stand by how sure they are, the surest first', () => {
  const at = (tie: 'sure' | 'likely' | 'only looks like', path: string) => ({ tie, path, line: 1, text: 'weigh(lot)' })
  const sorted = byTie([at('only looks like', 'a'), at('sure', 'b'), at('only looks like', 'c')])
  expect(sorted.map((x) => [x.tie, x.places.length])).toEqual([
    ['sure', 1],
    ['only looks like', 2],
  ])
})
