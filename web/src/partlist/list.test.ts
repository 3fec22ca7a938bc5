import { describe, expect, it } from 'vitest'
import { askedFrom, sortText, sortingOf } from './list'

const asked = (q: string) => askedFrom(new URLSearchParams(q))

describe('what is asked for of the parts', () => {
  it('begins with the largest and most used, in no order of a column', () => {
    expect(asked('')).toEqual({ words: '', kind: '', only: '', sort: 'weight', up: false })
    expect(sortingOf(asked(''))).toBeNull()
  })

  it('survives its way through the address, whichever way it is sorted', () => {
    for (const by of ['name', 'lines', 'users'])
      for (const down of [true, false]) {
        const a = asked(new URLSearchParams({ sort: sortText({ by, down }) }).toString())
        expect(sortingOf(a)).toEqual({ by, down })
      }
  })

  it('begins figures with the largest and names with A', () => {
    expect(asked('sort=lines+down').up).toBe(false)
    expect(asked('sort=name+up').up).toBe(false)
  })

  it('knows no filter that is not there', () => {
    expect(asked('only=blue&sort=colour').only).toBe('')
    expect(asked('only=twins').only).toBe('twins')
  })
})
