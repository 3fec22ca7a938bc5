import { expect, test } from 'vitest'
import { around, narrowName } from './narrow'

test('the folders around files belong to what is narrowed to', () => {
  expect([...around(['desk/src/drying/rack.ts', 'bench/drying.py', 'top.ts'])].sort()).toEqual([
    '.',
    'bench',
    'bench/drying.py',
    'desk',
    'desk/src',
    'desk/src/drying',
    'desk/src/drying/rack.ts',
    'top.ts',
  ])
  expect([...around([])]).toEqual(['.'])
})

test('what is picked has a name', () => {
  expect(narrowName({ feature: 'drying', role: 'handler' })).toBe('drying · handler')
  expect(narrowName({ feature: '-', role: '' })).toBe('shared')
  expect(narrowName({ feature: '', role: 'view' })).toBe('view')
  expect(narrowName({ feature: '', role: '' })).toBe('')
})
