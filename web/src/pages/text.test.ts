import { describe, expect, it } from 'vitest'
import { linkedPlace, ticked } from './text'

describe('ticking steps off', () => {
  const text = '# Start\n\n- [ ] run it\n- read\n  1. [x] the rack\n\n```\n- [ ] no step\n```\n\n* [ ] the shelf\n'
  it('changes the one step and nothing else', () => {
    expect(ticked(text, 0, true)).toBe(text.replace('[ ] run', '[x] run'))
    expect(ticked(text, 1, false)).toBe(text.replace('[x] the rack', '[ ] the rack'))
  })
  it('does not count what stands in code', () =>
    expect(ticked(text, 2, true)).toBe(text.replace('[ ] the shelf', '[x] the shelf')))
  it('leaves the text as it is where there is no such step', () => expect(ticked(text, 9, true)).toBe(text))
})

describe('links of a page', () => {
  it('lead to places by their path', () => {
    expect(linkedPlace('desk/a%20b.ts')).toEqual({ at: 'desk/a b.ts', line: 0, end: 0 })
    expect(linkedPlace('desk/a.ts#L3-L9')).toEqual({ at: 'desk/a.ts', line: 3, end: 9 })
    expect(linkedPlace('desk/a.ts#weigh')).toEqual({ at: 'desk/a.ts', line: 0, end: 0 })
  })
  it('lead elsewhere by anything else', () => {
    for (const href of ['https://moor.example', 'mailto:a@b', '/etc', '#top', '', 'a%zz'])
      expect(linkedPlace(href), href).toBeNull()
  })
})
