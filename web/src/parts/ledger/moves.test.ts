import { expect, it } from 'vitest'
import { moveOf, resorted, sortingFrom, sortingText } from './moves'

it('arrows stay within the list, and an empty list has nowhere to go', () => {
  expect(moveOf('ArrowDown', -1, 3, 10)).toEqual({ to: 0 })
  expect(moveOf('ArrowDown', 2, 3, 10)).toEqual({ to: 2 })
  expect(moveOf('ArrowUp', 0, 3, 10)).toEqual({ to: 0 })
  expect(moveOf('PageDown', 1, 3, 10)).toEqual({ to: 2 })
  expect(moveOf('End', 0, 9, 2)).toEqual({ to: 8 })
  for (const key of ['ArrowDown', 'Home', 'End', 'PageUp']) expect(moveOf(key, -1, 0, 10)).toBeNull()
})

it('Enter opens what is picked, and nothing where nothing is', () => {
  expect(moveOf('Enter', 1, 3, 10)).toEqual({ open: true })
  expect(moveOf('Enter', -1, 3, 10)).toBeNull()
  expect(moveOf('x', 1, 3, 10)).toBeNull()
})

it('a head pressed twice turns the order round', () => {
  const once = resorted(null, 'lines', true)
  expect(once).toEqual({ by: 'lines', down: true })
  expect(resorted(once, 'lines', true)).toEqual({ by: 'lines', down: false })
  expect(resorted(once, 'name', false)).toEqual({ by: 'name', down: false })
})

it('a sorting comes back from its address', () => {
  for (const s of [null, { by: 'lines', down: true }, { by: 'name', down: false }]) expect(sortingFrom(sortingText(s))).toEqual(s)
})
