import { describe, expect, it } from 'vitest'
import type { TextRow } from '../api/types'
import { saySet, sayValue, sayWrong, shareOf, wrongText } from './byName'

const row = (r: Partial<TextRow>): TextRow => ({
  kind: 'text',
  name: 'lots.title',
  set: 'locales/*.json',
  held: [],
  asked: [],
  written: [],
  maybe: false,
  missing: [],
  default: '',
  must: false,
  wrong: [],
  held_in: 0,
  asked_in: 0,
  ...r,
})

describe('names that no compiler looks at', () => {
  it('says which languages lack a text, the first of many', () => {
    expect(sayWrong(row({ wrong: ['missing in some'], missing: ['de', 'fr'] }))).toBe('missing in de, fr')
    const many = row({ wrong: ['missing in some', 'not asked for'], missing: ['de', 'es', 'fr', 'nl', 'pl', 'sv'] })
    expect(sayWrong(many)).toBe('missing in de, es, fr, nl and 2 more; nothing found that asks for it')
    expect(sayWrong(row({}))).toBe('')
  })

  it('says the same fault of each kind in its own words', () => {
    expect(wrongText('text', 'held nowhere')).toBe('in no catalogue')
    expect(wrongText('route', 'held nowhere')).toBe('no route has the name')
    expect(wrongText('setting', 'something new')).toBe('something new')
  })

  it('says of a setting what stands for it, or that it must be set', () => {
    const held = [{ path: '.env.example', line: 1, tongue: '', value: '8080' }]
    expect(sayValue(row({ kind: 'setting', held, default: '3000' }))).toBe('else 3000')
    expect(sayValue(row({ kind: 'setting', must: true }))).toBe('must be set')
    expect(sayValue(row({ kind: 'setting', held }))).toBe('')
    expect(sayValue(row({ held }))).toBe('8080')
  })

  it('says of catalogues whether it is known how they are asked for', () => {
    const set = { name: 'l/*.json', tongues: [{ name: 'en', path: 'l/en.json', has: 1200 }], keys: 1200, asked: 900, told: true }
    expect(saySet(set)).toBe('1,200 texts in 1 language, 900 of them asked for by their whole name')
    expect(saySet({ ...set, asked: 3, told: false })).toContain('only 3 asked for in a way that is known')
  })

  it('rounds no language up to whole', () => {
    expect(shareOf(999, 1000)).toBe(99)
    expect(shareOf(1000, 1000)).toBe(100)
    expect(shareOf(0, 0)).toBe(0)
  })
})
