import { expect, test } from 'vitest'
import { saysReach } from './reach'

const of = (way: string, reached: number, tests: number, direct: number) =>
  saysReach(
    {
      way,
      what: 'file',
      reached,
      tests,
      columns: [
        { x: 0, title: 'from here', count: 1 },
        { x: 9, title: 'directly', count: direct },
      ],
    },
    'desk',
  )

test('how much is reached is said in one sentence', () => {
  expect(of('touched', 12, 0, 3)).toBe('A change to desk may touch 12 files, 3 of them directly.')
  expect(of('touched', 1, 2, 1)).toBe('A change to desk may touch 1 file, 1 of them directly, and 2 of tests.')
  expect(of('touched', 0, 2, 0)).toBe('Tests alone were found to need desk: 2.')
  expect(of('touched', 0, 0, 0)).toBe('Nothing was found that needs desk.')
})

test('what comes along is said the same way', () => {
  expect(of('along', 0, 0, 0)).toBe('Taken elsewhere, desk needs nothing of the rest.')
  expect(of('along', 1200, 0, 3)).toBe('Taken elsewhere, desk brings 1,200 files along.')
})
