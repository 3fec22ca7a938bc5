import { expect, it } from 'vitest'
import type { Bundle, Drawing } from '../api/types'
import { whereFrom } from '../place/place'
import { exportQuery, lookFrom, matrixOf, passing, tooMuch } from './look'

const bundle = (from: string, to: string, more: Partial<Bundle> = {}): Bundle => ({
  from,
  to,
  class: 'code',
  count: 1,
  wide: 1,
  up: false,
  cut: false,
  implied: false,
  curve: '',
  tip: '',
  ...more,
})

const drawing = (paths: string[], bundles: Bundle[]): Drawing =>
  ({
    place: '.',
    boxes: paths.map((path, level) => ({ path, level, ring: 0, rim: false })),
    bundles,
  }) as unknown as Drawing

it('light bundles are left out, but never what is in a ring or against the charter', () => {
  const d = drawing(
    ['desk', 'counter', 'shared'],
    [bundle('desk', 'counter'), bundle('desk', 'shared', { count: 9 }), bundle('shared', 'desk', { up: true })],
  )
  const look = lookFrom(new URLSearchParams('least=5'))
  expect(passing(d, look, new Set()).map((b) => b.from + b.to)).toEqual(['deskshared', 'shareddesk'])
  expect(passing(d, look, new Set(['desk\ncounter']))).toHaveLength(3)
  expect(passing(d, lookFrom(new URLSearchParams('name=COUNT')), new Set()).map((b) => b.to)).toEqual(['counter'])
  expect(passing(d, lookFrom(new URLSearchParams('off=code')), new Set())).toEqual([])
})

it('what an eye can not follow becomes a matrix', () => {
  const many = Array.from({ length: 61 }, (_, i) => `part${i}`)
  expect(tooMuch(drawing(many, []), [])).toBe(true)
  expect(
    tooMuch(
      drawing(['a'], []),
      Array.from({ length: 151 }, () => bundle('a', 'b')),
    ),
  ).toBe(true)
  expect(tooMuch(drawing(many.slice(1), []), [])).toBe(false)
})

it('in a matrix what follows the levels lies on one side, and rings on the other', () => {
  const d = drawing(
    ['page', 'logic', 'store'],
    [
      bundle('page', 'logic'),
      bundle('logic', 'store', { count: 2 }),
      bundle('logic', 'store', { class: 'lazy', count: 3 }),
      bundle('store', 'page', { up: true }),
    ],
  )
  const m = matrixOf(d, d.bundles, new Set())
  expect(m.cells.map((c) => [c.row, c.column, c.count, c.up])).toEqual([
    [0, 1, 1, false],
    [1, 2, 5, false],
    [2, 0, 1, true],
  ])
  expect(m.cells[1]?.bundle.class).toBe('lazy')
})

it('what is handed out is what is shown', () => {
  const w = whereFrom('dependencies', 1, new URLSearchParams('at=desk&survey=3'))
  expect(exportQuery(w, lookFrom(new URLSearchParams('tests=1')))).toBe('survey=3&at=desk&tests=true&auto=true')
  expect(exportQuery(w, lookFrom(new URLSearchParams('open=desk%252Fsrc&focus=desk')))).toBe(
    'survey=3&at=desk&focus=desk&open=desk%2Fsrc',
  )
})
