import { describe, expect, it } from 'vitest'
import type { Permitted, Allowed } from '../api/types'
import { checksOf, columnsOf, narrowed, sayHole, sayRights } from './rights'

const check = (right: string, where: 'screen' | 'route' | 'inside', line: number) => ({ right, where, path: 'app.ts', line })
const action = (a: Partial<Permitted>): Permitted => ({
  method: 'POST',
  pattern: '/lots',
  path: 'app.ts',
  line: 1,
  does: [],
  changes: true,
  checks: [],
  hole: '',
  lacks: '',
  ...a,
})

describe('who may do what', () => {
  it('orders the checks of a right from outside to inside, each place once', () => {
    const a = action({
      checks: [
        check('curator', 'inside', 9),
        check('curator', 'screen', 4),
        check('signedIn', 'route', 1),
        check('curator', 'inside', 9),
      ],
    })
    expect(checksOf(a, 'curator').map((c) => c.where)).toEqual(['screen', 'inside'])
    expect(checksOf(a, 'grower')).toEqual([])
  })

  it('gives the most asked for rights a column, and says that more are left', () => {
    expect(columnsOf(['a', 'b'])).toEqual({ own: ['a', 'b'], more: false })
    expect(columnsOf(['a', 'b', 'c', 'd', 'e', 'f', 'g'])).toEqual({ own: ['a', 'b', 'c', 'd', 'e', 'f'], more: true })
  })

  it('narrows by a right and by what is missing', () => {
    const open = action({ hole: 'nothing is asked', pattern: '/boxes' })
    const kept = action({ checks: [check('curator', 'route', 1)] })
    expect(narrowed([open, kept], 'curator', '')).toEqual([kept])
    expect(narrowed([open, kept], '', 'nothing is asked')).toEqual([open])
    expect(narrowed([open, kept], 'curator', 'nothing is asked')).toEqual([])
  })

  it('names the right that is lacking', () => {
    expect(sayHole(action({ hole: 'asks for less than others of it', lacks: 'lots.write' }))).toBe(
      'lacks lots.write, which most others of it ask for',
    )
    expect(sayHole(action({ hole: 'nothing is asked' }))).toBe('nothing is asked')
  })

  it('says so where nothing is checked anywhere', () => {
    const d: Allowed = { actions: [action({})], names: [], all: 1200, holes: {} }
    expect(sayRights(d)).toContain('no check of who may do something was found')
    expect(sayRights({ ...d, actions: [action({ checks: [check('curator', 'route', 1)] })], names: ['curator'] })).toBe(
      '1,200 routes; the first 1 are shown; 1 right asked for.',
    )
  })
})
