import { describe, expect, it } from 'vitest'
import type { Handed } from '../api/types'
import { lifetimes, sayMix } from './handed'

const by = (provides: string, lifetime: string, line: number) => ({
  provides,
  for: 'IShelves',
  lifetime,
  how: 'AddScoped',
  path: 'Program.cs',
  line,
})
const handed = (all: Handed['by']): Handed => ({ for: 'IShelves', module: '.', by: all, askers: [], wrong: [] })

describe('what is handed out', () => {
  it('says each lifetime once, in words, and nothing where none is told', () => {
    expect(lifetimes(handed([by('A', 'scoped', 1), by('B', 'request', 2), by('C', 'singleton', 3)]))).toBe(
      'one request, for good',
    )
    expect(lifetimes(handed([by('A', '', 1)]))).toBe('')
    expect(lifetimes(handed([by('A', 'pooled', 1)]))).toBe('pooled')
  })

  it('tells by which call and where', () => {
    expect(sayMix(handed([by('Shelves', 'scoped', 2), by('', 'scoped', 3)]))).toBe(
      'Shelves by AddScoped in Program.cs:2; what a function makes by AddScoped in Program.cs:3',
    )
  })
})
