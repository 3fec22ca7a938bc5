import { expect, test } from 'vitest'
import { boxOf, keyed, tieFor } from './boxes'

test('a box is what lies between two points, whichever came first, inside of the picture', () => {
  expect(boxOf({ x: 0.1, y: 0.2 }, { x: 0.5, y: 0.4 })).toEqual({ x: 0.1, y: 0.2, w: 0.4, h: 0.2 })
  expect(boxOf({ x: 0.5, y: 0.4 }, { x: 0.1, y: 0.2 })).toEqual({ x: 0.1, y: 0.2, w: 0.4, h: 0.2 })
  expect(boxOf({ x: 0.9, y: 0.9 }, { x: 1.4, y: 1.2 })).toEqual({ x: 0.9, y: 0.9, w: 0.1, h: 0.1 })
})

test('a mere click makes none', () => {
  expect(boxOf({ x: 0.3, y: 0.3 }, { x: 0.305, y: 0.6 })).toBeNull()
})

test('arrows move a box and never out of the picture; with Shift they make it larger', () => {
  const r = { x: 0.9, y: 0.5, w: 0.1, h: 0.2 }
  expect(keyed(r, 'ArrowRight', false)).toEqual(r)
  expect(keyed(r, 'ArrowLeft', false)).toEqual({ ...r, x: 0.88 })
  expect(keyed(r, 'ArrowDown', true)).toEqual({ ...r, h: 0.22 })
  expect(keyed(r, 'ArrowRight', true)).toEqual(r)
  expect(keyed(r, 'a', false)).toBeNull()
})

test('a part is found by its name, or by the beginning that only it has', () => {
  const all = ['ShelfPicker', 'Shelf', 'Card'].map((name) => ({ name, path: `${name}.tsx`, line: 1 }))
  expect(tieFor('shelf', all)?.name).toBe('Shelf')
  expect(tieFor('shelfp', all)?.name).toBe('ShelfPicker')
  expect(tieFor('s', all)).toBeUndefined()
  expect(tieFor('', all)).toBeUndefined()
})
