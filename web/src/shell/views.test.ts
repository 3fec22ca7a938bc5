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

it.each(views.map((v) => [v.id, v] as const))('%s is there to be opened', async (_, v) => {
  expect(await v.load()).toHaveProperty('default')
})
