import { expect, test } from 'vitest'
import { acts, lastName, outOf } from './definition'

test('a name keeps what it stands in, and no more', () => {
  expect(lastName('Vault.Shelf.fill')).toBe('Shelf.fill')
  expect(lastName('fill')).toBe('fill')
  expect(lastName('')).toBe('')
})

test('what is not told is counted in words', () => {
  expect(outOf(1)).toBe('1 call of this file was not followed: built in, or of what is not told.')
  expect(outOf(1200)).toContain('1,200 calls of this file were')
  expect([{ kind: 'call' }, { kind: 'read' }, { kind: 'inherit' }].filter(acts)).toHaveLength(2)
})
