import { expect, it } from 'vitest'
import type { Beside } from '../api/types'
import { sentence, signed } from './Differences'

const beside = (same: number, changes: number, here: number, there: number): Beside => {
  const match = { same, changes, here_only: here, there_only: there, changed: [], here: [], there: [] }
  return { here: 'a', there: 'b', figures: [], features: match, files: match }
}

it('says in one sentence how two places lie over each other', () => {
  expect(sentence(beside(3, 0, 0, 0))).toBe('The two are alike to the letter.')
  expect(sentence(beside(0, 0, 4, 9))).toBe('No file of the two has the same name below its place.')
  expect(sentence(beside(1, 2, 0, 3))).toBe('1 file alike, 2 with other content, 3 only there.')
})

it('a difference has its sign, and none where there is none', () => {
  expect([signed(3), signed(-1200.4), signed(0.2)]).toEqual(['+3', '−1,200', ''])
})
