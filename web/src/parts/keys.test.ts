import { expect, it } from 'vitest'
import { everywhere, keymap } from './keys'

it('keys are as set, or as they came', () => {
  const all = [{ id: 'layout', key: '2', text: 'Layout' }, { id: 'overview', key: '1', text: 'Overview' }, ...everywhere]
  expect(keymap(all, { layout: 'l', up: '' })).toMatchObject({ layout: 'l', up: '', overview: '1', undo: 'z' })
})

it('no key of every view stands for two things', () => {
  expect(new Set(everywhere.map((k) => k.key)).size).toBe(everywhere.length)
})
