import { expect, it } from 'vitest'
import { liesAmong } from './among'

it('a score is held against those of other codebases in words', () => {
  expect(liesAmong(0, 37)).toBe('Lower than that of all 37 codebases it was compared with.')
  expect(liesAmong(37, 37)).toBe('Higher than that of all 37 codebases it was compared with.')
  expect(liesAmong(12, 37)).toBe('Higher than that of 12 of 37 codebases it was compared with.')
})
