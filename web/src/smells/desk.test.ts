import { describe, expect, it } from 'vitest'
import { askedFrom, mayRest, stillShown } from './desk'

const rule = (dismissed: number, rests = '') => ({
  slug: 'numbered-name',
  title: '',
  facet: 'Names' as const,
  question: '',
  why: '',
  example: '',
  remedy: '',
  limits: [],
  rests,
  dismissed: Array.from({ length: dismissed }, (_, i) => ({ path: `box${i}.ts`, line: 1, text: '', reason: 'agreed' })),
})

describe('the desk', () => {
  it('asks for what the address says, and for rules where it says nothing known', () => {
    expect(askedFrom(new URLSearchParams('group=folder&key=desk&quiet=1&words=box&each=1'))).toEqual({
      group: 'folder',
      key: 'desk',
      words: 'box',
      quiet: true,
      each: true,
    })
    expect(askedFrom(new URLSearchParams('group=moon')).group).toBe('rule')
  })

  it('offers to let a rule rest after three dismissals, once', () => {
    expect(mayRest(rule(2))).toBe(false)
    expect(mayRest(rule(3))).toBe(true)
    expect(mayRest(rule(3, 'agreed'))).toBe(false)
  })

  it('acts on what is marked and shown alone', () => {
    expect(stillShown(new Set(['a', 'c']), [{ id: 'a' }, { id: 'b' }])).toEqual(['a'])
  })
})
