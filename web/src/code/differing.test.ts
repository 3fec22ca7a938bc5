import { expect, it } from 'vitest'
import { differingLines } from './differing'

it('lines that are not in the other text are told, on each side its own', () => {
  const before = 'tare\nweigh\nkeep\nclose'
  const after = 'tare\nweigh twice\nkeep\nprint\nclose'
  expect(differingLines(before, after)).toEqual([2])
  expect(differingLines(after, before)).toEqual([2, 4])
})

it('a text beside itself differs in nothing', () => {
  expect(differingLines('a\nb\n', 'a\nb\n')).toEqual([])
  expect(differingLines('', '')).toEqual([])
})
