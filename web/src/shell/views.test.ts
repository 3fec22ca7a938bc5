import { expect, it } from 'vitest'
import { everywhere } from '../parts/keys'
import { nearest } from '../parts/view'
import { views } from './views'

it('every view has a name, a digit and a word of its own, and says something of some place', () => {
  for (const of of ['id', 'digit', 'title'] as const) expect(new Set(views.map((v) => v[of])).size).toBe(views.length)
  for (const v of views) {
    expect(v.digit).toMatch(/^[0-9]$/)
    expect(Object.keys(v.says)).not.toEqual([])
    expect(everywhere.map((k) => k.key)).not.toContain(v.digit)
  }
})

it('a place stays in the view where that has something to say, and else opens the nearest that has', () => {
  expect(nearest(views, 'weave', 'folder')).toBe('weave')
  expect(nearest(views, 'code', 'folder')).toBe('layout')
  expect(nearest(views, 'code', 'codebase')).toBe('layout')
  expect(nearest(views, 'code', 'file')).toBe('code')
})

// Loaded before the tests run: how long the first takes says how busy the machine is, not whether it is there.
const loaded = await Promise.all(views.map(async (v) => [v.id, await v.load().catch((e: unknown) => e)] as const))

it.each(loaded)('%s is there to be opened', (_, module) => {
  expect(module).toHaveProperty('default')
})
