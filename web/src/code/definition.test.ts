import { expect, test } from 'vitest'
import { lastName, outOf } from './definition'

test('a name keeps what it stands in, and no more', () => {
  expect(lastName('Vault.Shelf.fill')).toBe('Shelf.fill')
  expect(lastName('fill')).toBe('fill')
  expect(lastName('')).toBe('')
})

test('what is not told is counted in words', () => {
  expect(outOf(1)).toBe('1 call of this file leads nowhere that is known.')
  expect(outOf(1200)).toBe('1,200 calls of this file lead nowhere that is known.')
})
