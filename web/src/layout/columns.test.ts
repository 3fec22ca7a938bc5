import { describe, expect, it } from 'vitest'
import { chosenColumns, columnsIn, flippedColumn } from './columns'

const ids = (asked: string | null) => chosenColumns(asked).map((c) => c.id)

describe('the columns of the ledger', () => {
  it('go on from what the address asks for, drawn or not', () => {
    const once = flippedColumn(null, 'authors')
    expect(ids(once)).toEqual(['lines', 'files', 'in', 'out', 'smells', 'findings', 'changed', 'authors'])
    expect(ids(flippedColumn(once, 'out'))).toEqual(['lines', 'files', 'in', 'smells', 'findings', 'changed', 'authors'])
  })

  it('can all be taken out', () => {
    const none = ids(null).reduce<string | null>((asked, id) => flippedColumn(asked, id), null)
    expect(none).toBe('none')
    expect(ids(none)).toEqual([])
  })

  it('leave room for the names, lines last of all', () => {
    const drawn = columnsIn(chosenColumns(null), 540).map((c) => c.id)
    expect(drawn).toContain('lines')
    expect(drawn.length).toBeLessThan(4)
  })
})
