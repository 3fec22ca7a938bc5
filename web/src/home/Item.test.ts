import { expect, it } from 'vitest'
import { removed } from './Item'

it('says what was removed and what that freed', () => {
  expect(removed('vault', { surveys: 1, texts: 1200, bytes: 3_400_000 })).toBe(
    'vault is removed: 1 survey, 1,200 texts that nothing else holds, 3 MB freed.',
  )
  expect(removed('vault', { surveys: 2, texts: 1, bytes: 1 })).toContain('1 KB freed')
})
