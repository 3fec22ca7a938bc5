import { expect, it } from 'vitest'
import { startsWith } from './Menu'

it('a letter goes to the next item that begins with it, round and round', () => {
  const list = ['bench', 'counter', 'Cellar', 'desk']
  const jump = (from: number, typed: string) => startsWith(list, from, typed, (t) => t)
  expect(jump(-1, 'c')).toBe('counter')
  expect(jump(1, 'c')).toBe('Cellar')
  expect(jump(2, 'C')).toBe('counter')
  expect(jump(0, 'de')).toBe('desk')
  expect(jump(0, 'x')).toBeUndefined()
})
