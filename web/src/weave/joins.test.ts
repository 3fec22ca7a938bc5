import { describe, expect, it } from 'vitest'
import type { Grid } from '../api/types'
import { commonStart, cutSentence, fitting, grouped, inSight, joined } from './joins'

const cell = (role: number, feature: number, folder: string, left = false, up = false) => ({
  left,
  up,
  role,
  feature,
  folder,
  files: 1,
  lines: 1,
  folders: 1,
  first: `${folder}/a`,
  paths: [],
})

describe('joined', () => {
  it('draws each join at both of its cells', () => {
    const grid = {
      roles: ['handler', 'logic'],
      features: [{}, {}, {}],
      cells: [cell(0, 0, 'h'), cell(0, 1, 'h', true), cell(0, 2, 'x'), cell(1, 2, 'x', false, true)],
    } as unknown as Grid
    const rows = joined(grid)
    expect(rows[0]?.map((c) => [c?.left, c?.right, c?.up, c?.down])).toEqual([
      [false, true, false, false],
      [true, false, false, false],
      [false, false, false, true],
    ])
    expect(rows[1]?.[0]).toBeNull()
    expect(rows[1]?.[2]?.up).toBe(true)
  })
})

describe('cutSentence', () => {
  it('says when there is too little to tell', () => {
    expect(cutSentence({ label: '', value: null })).toContain('Too little')
    expect(cutSentence({ label: 'by kind', value: -1 })).toContain('by kind')
  })
})

describe('commonStart', () => {
  it('is what heads would repeat', () => {
    expect(commonStart(['seed-core', 'seed-web', '', 'seed-jobs'])).toBe('seed-')
    expect(commonStart(['vault.a.core', 'vault.a.web', 'vault.b.web'])).toBe('vault.')
  })
  it('takes no name away whole, and no part of a word', () => {
    expect(commonStart(['seed-', 'seed-web', 'seed-jobs'])).toBe('')
    expect(commonStart(['seeds', 'seedbox', 'seedling'])).toBe('')
    expect(commonStart(['seed-core', 'seed-web'])).toBe('')
  })
})

describe('grouped', () => {
  it('takes columns of one folder together', () => {
    const features = ['desk', 'desk', 'bench', '', 'desk'].map((group) => ({ group })) as unknown as Grid['features']
    expect(grouped(features)).toEqual([
      { name: 'desk', from: 0, n: 2 },
      { name: 'bench', from: 2, n: 1 },
      { name: '', from: 3, n: 1 },
      { name: 'desk', from: 4, n: 1 },
    ])
    expect(grouped([])).toEqual([])
  })
})

const wide = (n: number): Grid =>
  ({
    roles: ['handler'],
    features: Array.from({ length: n }, (_, i) => ({ name: `f${i}`, lines: i, missing: [], group: '' })),
    cells: Array.from({ length: n }, (_, i) => ({ role: 0, feature: i, left: i > 0, up: false })),
  }) as unknown as Grid

it('a grid fits its width: the largest features stay, in their order, and are joined only to neighbours', () => {
  const { grid, left, columnWidth } = fitting(wide(60), 700, '')
  expect(128 + grid.features.length * columnWidth).toBeLessThanOrEqual(700)
  expect(left).toBe(60 - grid.features.length)
  expect(grid.features.map((f) => f.name)).toEqual(Array.from({ length: grid.features.length }, (_, i) => `f${left + i}`))
  expect(grid.cells[0]?.left).toBe(false)
  expect(grid.cells[1]?.left).toBe(true)
})

it('every feature is a name away', () => {
  const { grid, left } = fitting(wide(60), 700, 'f3')
  expect(grid.features.map((f) => f.name)).toEqual(['f3', 'f30', 'f31', 'f32', 'f33', 'f34', 'f35', 'f36', 'f37', 'f38', 'f39'])
  expect(left).toBe(0)
  expect(grid.cells.filter((c) => c.left)).toHaveLength(9)
})

it('what is open is in sight, whatever does not fit', () => {
  const all = Array.from({ length: 50 }, (_, i) => i)
  const { shown } = inSight(all, 49, 400)
  expect(shown).toContain(49)
  expect(shown.length).toBeLessThan(20)
  expect(inSight([], undefined, 400).shown).toEqual([])
})
