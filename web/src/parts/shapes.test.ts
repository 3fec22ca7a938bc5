import { describe, expect, it } from 'vitest'
import type { OneShape } from '../api/types'
import { fieldText, rowsOf, sayBeside } from './shapes'

const field = (name: string, type: string, line = 1) => ({ name, type, optional: false, default: '', limits: '', line })

const beside = (pairs: OneShape['beside'][number]['pairs']): OneShape['beside'][number] => ({
  path: 'b.sql',
  name: 'boxes',
  line: 1,
  role: 'schema',
  same: 1,
  differs: 1,
  lost: 1,
  added: 1,
  pairs,
})

const shape: OneShape = {
  path: 'a.ts',
  name: 'Box',
  line: 1,
  role: 'model',
  fields: [field('id', 'string'), field('weight', 'number'), field('slot', 'number')],
  beside: [],
}

describe('shapes side by side', () => {
  const one = beside([
    { name: 'id', what: 'same', how: [], a: field('id', 'string'), b: field('id', 'TEXT') },
    { name: 'weight', what: 'differs', how: ['type'], a: field('weight', 'number'), b: field('weight', 'TEXT') },
    { name: 'slot', what: 'lost', how: [], a: field('slot', 'number') },
    { name: 'shelf_name', what: 'added', how: [], b: field('shelf_name', 'TEXT') },
  ])
  const two = beside([
    { name: 'id', what: 'lost', how: [], a: field('id', 'string') },
    { name: 'weight', what: 'lost', how: [], a: field('weight', 'number') },
    { name: 'slot', what: 'same', how: [], a: field('slot', 'number'), b: field('slot', 'int') },
    { name: 'shelfName', what: 'added', how: [], b: field('shelfName', 'string') },
  ])

  it('puts each field in one row, also what only others have, however they write it', () => {
    const rows = rowsOf(shape, [one, two])
    expect(rows.map((r) => [r.name, r.own !== null, r.others.map((x) => x?.field.type ?? '–')])).toEqual([
      ['id', true, ['TEXT', '–']],
      ['weight', true, ['TEXT', '–']],
      ['slot', true, ['–', 'int']],
      ['shelf_name', false, ['TEXT', 'string']],
    ])
    expect(rows[1]?.others[0]?.how).toEqual(['type'])
  })

  it('keeps every column, also of a shape that shares nothing', () => {
    expect(rowsOf(shape, [beside([])]).map((r) => r.others)).toEqual([[null], [null], [null]])
  })

  it('says what two have of each other, and how a field is written', () => {
    expect(sayBeside(one)).toBe('1 field the same, 1 otherwise, 1 it lacks, 1 more')
    expect(fieldText({ ...field('copies', 'integer'), optional: true, default: '1', limits: 'max 9' })).toBe(
      'integer, may be missing, else 1, max 9',
    )
  })
})
