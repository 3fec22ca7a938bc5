import { describe, expect, it } from 'vitest'
import type { Row } from '../api/types'
import { chosenColumns, columnsIn } from './columns'
import { heightOf, nearestRow, needsTwoLines } from './tree'
import { arrange, firstDepth, type Wish } from './tree'

const row = (path: string, more: Partial<Row> = {}): Row => ({
  path,
  name: path.slice(path.lastIndexOf('/') + 1),
  depth: path === '.' ? 0 : path.split('/').length,
  file: false,
  purpose: '',
  source: '',
  roles: [],
  lines: 0,
  files: 0,
  own: 0,
  in: 0,
  out: 0,
  smells: 0,
  strongest: 0,
  findings: 0,
  read: 0,
  skipped: '',
  changes: 0,
  authors: 0,
  changed: '',
  head: '',
  judged: 1,
  ...more,
})

const rows = [
  row('.'),
  row('desk', { lines: 50, smells: 2, strongest: 0.4 }),
  row('desk/pages', { lines: 20, read: 1 }),
  row('desk/parts', { lines: 30, purpose: 'Drawn parts', smells: 2, strongest: 0.9 }),
  row('bench', { lines: 90, own: 1 }),
  row('bench/lots', { lines: 90 }),
  row('main.ts', { file: true, lines: 400 }),
]
const wish: Wish = { sort: 'name', down: false, filter: '', only: '', toggled: new Set(), depth: 9 }
const paths = (w: Partial<Wish>) => arrange(rows, { ...wish, ...w }).map((s) => s.row.path)

describe('the ledger', () => {
  it('stands by name, folders before files', () => {
    expect(paths({})).toEqual(['.', 'bench', 'bench/lots', 'desk', 'desk/pages', 'desk/parts', 'main.ts'])
  })
  it('is sorted among siblings, below their folder', () => {
    expect(paths({ sort: 'lines', down: true })).toEqual([
      '.',
      'main.ts',
      'bench',
      'bench/lots',
      'desk',
      'desk/parts',
      'desk/pages',
    ])
  })
  it('folds by depth and by hand', () => {
    expect(paths({ depth: 1 })).toEqual(['.', 'bench', 'desk', 'main.ts'])
    expect(paths({ depth: 1, toggled: new Set(['desk']) })).toEqual(['.', 'bench', 'desk', 'desk/pages', 'desk/parts', 'main.ts'])
    expect(paths({ toggled: new Set(['.']) })).toEqual(['.'])
  })
  it('keeps the folders above what a filter finds', () => {
    expect(paths({ filter: 'DRAWN' })).toEqual(['.', 'desk', 'desk/parts'])
    expect(paths({ filter: 'no such' })).toEqual(['.'])
    expect(paths({ only: 'smelly' })).toEqual(['.', 'desk', 'desk/parts'])
    expect(paths({ only: 'unread' })).not.toContain('desk/pages')
  })
  it('does not change the rows it is given', () => {
    const before = JSON.stringify(rows)
    arrange(rows, { ...wish, sort: 'smells', down: true })
    expect(JSON.stringify(rows)).toBe(before)
  })
  it('opens as deep as fits', () => {
    expect(firstDepth(rows, 100)).toBe(2)
    expect(firstDepth(rows, 3)).toBe(1)
    expect(arrange([], wish)).toEqual([])
  })
})

describe('purposes that are too long for one line', () => {
  const long = row('desk/shelves', {
    depth: 1,
    purpose: 'Shelves and boxes of the vault, and what lies in each of them, lot by lot.',
  })
  it('take a second line where the column is narrow', () => {
    expect(needsTwoLines(long, 300)).toBe(true)
    expect(heightOf(long, 300)).toBeGreaterThan(heightOf(long, 900))
  })
  it('stay on one line where there is room, or nothing to say', () => {
    expect(needsTwoLines(long, 900)).toBe(false)
    expect(needsTwoLines(row('a'), 120)).toBe(false)
  })
  it('have less room the deeper the folder', () => {
    const at = (depth: number) => needsTwoLines({ ...long, depth }, 620)
    expect([at(1), at(9)]).toEqual([false, true])
  })
})

describe('the columns of the ledger', () => {
  const ids = (asked: string | null) => chosenColumns(asked).map((c) => c.id)
  it('are the usual ones until somebody chooses', () => {
    expect(ids(null)).toEqual(['lines', 'files', 'in', 'out', 'smells', 'findings', 'changed'])
  })
  it('keep their order whatever the address says, and leave out what it does not name', () => {
    expect(ids('authors,lines,nonsense')).toEqual(['lines', 'authors'])
    expect(ids('none')).toEqual([])
  })
})

describe('what is picked', () => {
  const folded = arrange(rows, { ...wish, toggled: new Set(['desk']) })
  it('is the folder around it when it is folded away', () => {
    const i = nearestRow(folded, 'desk/parts')
    expect(folded[i]?.row.path).toBe('desk')
  })
  it('is the row itself where it stands, and nothing where there are no rows', () => {
    expect(folded[nearestRow(folded, 'bench/lots')]?.row.path).toBe('bench/lots')
    expect(nearestRow([], 'bench')).toBe(-1)
  })
  it('puts folders that each hold but the next in one row', () => {
    const chain = [
      row('.'),
      row('scans', { smells: 3, strongest: 0.5, findings: 1, purpose: 'Reads old cards' }),
      row('scans/src', { smells: 2 }),
      row('scans/src/main', { own: 0 }),
      row('scans/src/main/a.ts', { file: true }),
      row('scans/src/main/b', { own: 1 }),
      row('labels', { own: 1 }),
      row('labels/print'),
    ]
    const shown = arrange(chain, wish)
    expect(shown.map((s) => [s.row.name, s.row.depth])).toEqual([
      ['.', 0],
      ['labels', 1],
      ['print', 2],
      ['scans/src/main', 1],
      ['b', 2],
      ['a.ts', 2],
    ])
    const joined = shown[3]
    expect(joined?.row.path).toBe('scans/src/main')
    expect(shown.reduce((n, s) => n + s.count, 0)).toBe(chain.length)
    expect([joined?.row.smells, joined?.row.findings, joined?.row.purpose]).toEqual([3, 1, 'Reads old cards'])
    // Whoever looks for a folder in between finds the row it stands in.
    expect(nearestRow(shown, 'scans/src')).toBe(3)
    expect(nearestRow(shown, 'scans')).toBe(3)
    expect(nearestRow(shown, 'scans/src/main/b')).toBe(4)
    expect(nearestRow(shown, 'labels/print/gone')).toBe(2)
    expect(arrange(chain, { ...wish, toggled: new Set(['scans/src/main']) }).map((s) => s.row.path)).not.toContain(
      'scans/src/main/b',
    )
  })
})

it('where there is little room the figures that tell most stay', () => {
  const all = chosenColumns(null)
  expect(columnsIn(all, 1200)).toEqual(all)
  expect(columnsIn(all, 560).map((c) => c.id)).toEqual(['lines', 'smells'])
  expect(columnsIn(all, 100).map((c) => c.id)).toEqual(['lines'])
})
