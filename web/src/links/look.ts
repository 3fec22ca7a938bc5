import type { Bundle, CharterState, Drawing } from '../api/types'
import { within } from '../api/within'
import type { Where } from '../place/place'

/** How the dependencies are shown, as it stands in the address. */
export interface Look {
  /** The folders taken apart; null leaves it to the drawing. */
  open: string[] | null
  /** Classes of links that are hidden. */
  off: ReadonlySet<string>
  tests: boolean
  rim: boolean
  focus: string
  /** Bundles with fewer links are left out. */
  least: number
  /** Only boxes with this in their path, and what they touch. */
  name: string
  as: '' | 'matrix' | 'drawing'
}

export function lookFrom(q: URLSearchParams): Look {
  const asked = q.get('open')
  const as = q.get('as')
  return {
    // "." stands for nothing opened; no list at all leaves it to the drawing.
    open:
      asked === null
        ? null
        : asked
            .split(' ')
            .filter((o) => o && o !== '.')
            .map(decodeURIComponent),
    off: new Set((q.get('off') ?? '').split(',').filter(Boolean)),
    tests: q.get('tests') === '1',
    rim: q.get('rim') === '1',
    focus: q.get('focus') ?? '',
    least: Math.max(1, Number(q.get('least')) || 1),
    name: q.get('name') ?? '',
    as: as === 'matrix' || as === 'drawing' ? as : '',
  }
}

/** The bundles that pass the filters. What is against the charter or part of a ring is never filtered by weight. */
export function passing(d: Drawing, look: Look, broken: ReadonlySet<string>): Bundle[] {
  const name = look.name.toLowerCase()
  const named = (p: string) => p.toLowerCase().includes(name)
  return d.bundles.filter(
    (b) =>
      !look.off.has(b.class) &&
      (b.count >= look.least || b.up || broken.has(`${b.from}\n${b.to}`)) &&
      (!name || named(b.from) || named(b.to)),
  )
}

/** Beyond so many boxes or lines an eye follows a matrix better than arrows. */
const mostBoxes = 60
const mostLines = 150

export const tooMuch = (d: Drawing, shown: readonly Bundle[]): boolean =>
  d.boxes.filter((b) => !b.rim).length > mostBoxes || shown.length > mostLines

/** The bundles that hold a dependency against the charter. */
export function breachedPairs(d: Drawing, charter: CharterState | null): Set<string> {
  const out = new Set<string>()
  if (!charter) return out
  for (const x of charter.breaches) {
    const a = d.boxes.find((b) => within(b.path, x.from))
    const c = d.boxes.find((b) => within(b.path, x.to))
    if (a && c && a !== c) out.add(`${a.path}\n${c.path}`)
  }
  return out
}

/** What is handed out as a file is what is shown. */
export function exportQuery(w: Where, look: Look): string {
  const q = new URLSearchParams()
  if (w.survey) q.set('survey', String(w.survey))
  if (w.at !== '.') q.set('at', w.at)
  if (look.focus) q.set('focus', look.focus)
  if (w.feature) q.set('feature', w.feature)
  if (w.role) q.set('role', w.role)
  if (look.tests) q.set('tests', 'true')
  if (look.rim) q.set('rim', 'true')
  if (look.open === null) q.set('auto', 'true')
  for (const o of look.open ?? []) q.append('open', o)
  return q.toString()
}

/** The class of a line's look. */
export const klass = (c: string) => c.replace(' ', '-')

/** One cell of a matrix: that the box of its row needs the box of its column. */
export interface Cell {
  row: number
  column: number
  count: number
  bundle: Bundle
  /** It points upwards: part of a ring. */
  up: boolean
  broken: boolean
}

/**
 * Boxes in the order of their levels, rings together, and what needs what among
 * them: below a row stand only those it may need, so that what lies left of the
 * diagonal is against the order.
 */
export function matrixOf(d: Drawing, shown: readonly Bundle[], broken: ReadonlySet<string>) {
  const boxes = d.boxes.filter((b) => !b.rim).sort((a, b) => a.level - b.level || a.ring - b.ring || (a.path < b.path ? -1 : 1))
  const at = new Map(boxes.map((b, i) => [b.path, i]))
  const by = new Map<string, Cell>()
  for (const b of shown) {
    const [row, column] = [at.get(b.from), at.get(b.to)]
    if (row === undefined || column === undefined) continue
    const key = `${row} ${column}`
    const old = by.get(key)
    by.set(key, {
      row,
      column,
      count: b.count + (old?.count ?? 0),
      bundle: old && old.bundle.count > b.count ? old.bundle : b,
      up: b.up || (old?.up ?? false),
      broken: broken.has(`${b.from}\n${b.to}`),
    })
  }
  return { boxes, cells: [...by.values()] }
}
