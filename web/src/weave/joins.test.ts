import { describe, expect, it } from 'vitest'
import type { Grid } from '../api/types'
import { cutSentence, grouped, joined } from './joins'

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
