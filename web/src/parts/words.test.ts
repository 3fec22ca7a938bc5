import { expect, test } from 'vitest'
import { heard, typed, type Words } from './words'

const start: Words = { words: '', last: '', sent: [] }

test('what comes back late takes no letter from what was typed since', () => {
  let w = typed(typed(typed(start, 'g'), 'ge'), 'ger')
  w = heard(w, 'g')
  expect(w.words).toBe('ger')
  w = heard(w, 'ger') // the address may skip a step
  expect(w).toEqual({ words: 'ger', last: 'ger', sent: [] })
})

test('what somebody else sets stands in the field', () => {
  const w = heard(typed(start, 'germ'), 'germ')
  expect(heard(w, '').words).toBe('')
  expect(heard(w, 'vault').words).toBe('vault')
})

test('words typed twice come back twice', () => {
  let w = typed(typed(typed(start, 'a'), ''), 'a')
  w = heard(w, 'a')
  expect(w.sent).toEqual(['', 'a'])
  w = heard(w, '')
  expect(w.words).toBe('a')
})
