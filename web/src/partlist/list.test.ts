import { describe, expect, it } from 'vitest'
import { askedFrom, placeOf, sortText, sortingOf } from './list'

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

describe('where a part stands', () => {
  it('is the folder where the part is the file, so that no name stands twice', () => {
    expect(placeOf({ path: 'desk/src/shelf.c', name: 'shelf.c' }, '.')).toBe('desk/src')
    expect(placeOf({ path: 'desk/src/shelf.c', name: 'shelf.c' }, 'desk')).toBe('src')
    expect(placeOf({ path: 'desk/src/shelf.ts', name: 'Shelf' }, 'desk/src')).toBe('shelf.ts')
    expect(placeOf({ path: 'desk/src/shelf/Shelf.tsx', name: 'Shelf' }, 'desk')).toBe('src/shelf')
    expect(placeOf({ path: 'shelf.c', name: 'shelf.c' }, '.')).toBe('shelf.c')
  })
})
