import { describe, expect, it } from 'vitest'
import { conventionText, promiseText, wordsOf } from './saying'

const convention = (cases: [string, number][]) => ({
  kind: 'field',
  language: 'Python',
  count: cases.reduce((n, [, c]) => n + c, 0),
  cases: cases.map(([c, count]) => ({ case: c, count })),
  outliers: [],
})

describe('what is said of names', () => {
  it('tells in how many ways they are written, and how many of each', () => {
    expect(conventionText(convention([['snake_case', 900]]))).toBe('900 fields in Python: all snake_case.')
    expect(
      conventionText(
        convention([
          ['snake_case', 999],
          ['camelCase', 1],
        ]),
      ),
    ).toBe(
      // prettier-ignore
      '1,000 fields in Python, written in 2 ways: 999 snake_case (99 %), 1 camelCase (under 1 %).',
    )
  })

  it('says of verbs only what they promise', () => {
    const verb = { verb: 'get', count: 12, broken: 2, promise: true, places: [] }
    expect(promiseText(verb)).toBe('2 of 12 give nothing back')
    expect(promiseText({ ...verb, broken: 0 })).toBe('each gives something back')
    expect(promiseText({ ...verb, promise: false })).toBe('')
  })
})

it('words typed with commas are taken one by one, each once', () => {
  expect(wordsOf(' Batch, parcel ,,batch')).toEqual(['batch', 'parcel'])
  expect(wordsOf('  ')).toEqual([])
})
