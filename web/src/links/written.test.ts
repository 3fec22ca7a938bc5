import { expect, test } from 'vitest'
import { returning } from './written'

test('what was written here comes back late and is told as own, even if some of it was skipped', () => {
  const own = returning()
  for (const t of ['l', 'la', 'lay', 'laye']) own.handedUp(t)
  expect(own.isOwn('l')).toBe(true)
  expect(own.isOwn('lay')).toBe(true)
  expect(own.isOwn('laye')).toBe(true)
})

test('a text from elsewhere is none of one’s own, nor is one that came back already', () => {
  const own = returning()
  own.handedUp('layers: []')
  expect(own.isOwn('layers: []')).toBe(true)
  // Taken back by somebody: the same text, but now it comes from outside.
  expect(own.isOwn('layers: []')).toBe(false)
  own.handedUp('rules:')
  expect(own.isOwn('written by the form')).toBe(false)
  expect(own.isOwn('rules:')).toBe(false)
})
