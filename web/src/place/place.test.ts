import { expect, it } from 'vitest'
import { counted, inkStep, shortPath } from '../theme/ink'
import { parentOf, urlOf, whereFrom, nearName } from './place'

it('a place comes back from its URL', () => {
  const w = {
    id: 3,
    view: 'code',
    at: 'a b/c&d.ts',
    pick: '',
    survey: 7,
    feature: 'drying',
    role: 'handler',
    line: 4,
    end: 9,
    margin: 'off',
    legend: 'off',
    beside: { id: 4, survey: 2, at: '.' },
  }
  const url = new URL(urlOf(w), 'http://jantel.example')
  expect(whereFrom('code', 3, url.searchParams)).toEqual(w)
})

it('what a URL says wrongly falls back to the whole codebase', () => {
  expect(whereFrom(undefined, 1, new URLSearchParams('line=-&end=x&survey=y'))).toEqual({
    id: 1,
    view: 'overview',
    at: '.',
    pick: '',
    survey: 0,
    feature: '',
    role: '',
    line: 0,
    end: 0,
    margin: '',
    legend: '',
    beside: null,
  })
})

it('the top has no folder above', () => {
  expect([parentOf('a/b/c'), parentOf('a'), parentOf('.')]).toEqual(['a/b', '.', '.'])
})

it('long paths are shortened in the middle and keep their name', () => {
  const p = 'desk/src/components/icons/weights/HeavyBox.tsx'
  expect(shortPath(p, 30)).toBe('desk/src/…/HeavyBox.tsx')
  expect(shortPath(p, 100)).toBe(p)
  for (let max = 9; max < 60; max++)
    expect(shortPath(p, max).length).toBeLessThanOrEqual(Math.max(max, 'desk/…/HeavyBox.tsx'.length))
})

it('ink has five steps', () => {
  expect([0, 0.2, 0.21, 0.99, 1].map(inkStep)).toEqual([1, 1, 2, 5, 5])
  expect(counted(1, 'file') + counted(1200, 'file')).toBe('1 file1,200 files')
})

it('a name keeps what it stands in, and no more', () => {
  expect(nearName('Vault.Shelf.fill')).toBe('Shelf.fill')
  expect(nearName('fill')).toBe('fill')
  expect(nearName('')).toBe('')
})
