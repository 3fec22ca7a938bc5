import { expect, test } from 'vitest'
import { acts, outOf } from './definition'

test('what is not told is counted in words', () => {
  expect(outOf(1)).toBe('1 call of this file was not followed: built in, or of what is not told.')
  expect(outOf(1200)).toContain('1,200 calls of this file were')
  expect([{ kind: 'call' }, { kind: 'read' }, { kind: 'inherit' }].filter(acts)).toHaveLength(2)
})
