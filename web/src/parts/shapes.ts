import type { OneShape } from '../api/types'
import { counted } from '../theme/ink'

type Beside = OneShape['beside'][number]
export type ShapeField = OneShape['fields'][number]

/** One field over all shapes: how each writes it, null where it has none. */
export interface FieldRow {
  name: string
  own: ShapeField | null
  others: (null | { field: ShapeField; how: string[] })[]
}

/** The fields of all shapes below each other: first those of the shape itself in its order, then what only others have. */
export function rowsOf(o: OneShape, beside: readonly Beside[]): FieldRow[] {
  const rows: FieldRow[] = o.fields.map((f) => ({ name: f.name, own: f, others: [] }))
  beside.forEach((b, k) => {
    let own = 0
    for (const p of b.pairs) {
      if (p.a) {
        const row = rows[own++]
        if (row) row.others[k] = p.b ? { field: p.b, how: p.how ?? [] } : null
        continue
      }
      if (!p.b) continue
      const same = rows.find((r) => !r.own && plain(r.name) === plain(p.name) && !r.others[k])
      const row = same ?? { name: p.name, own: null, others: [] }
      if (!same) rows.push(row)
      row.others[k] = { field: p.b, how: [] }
    }
  })
  for (const r of rows) for (let k = 0; k < beside.length; k++) r.others[k] ??= null
  return rows
}

const plain = (name: string) => name.replace(/_/g, '').toLowerCase()

/** A field as it is written: its type, whether it may be missing, what bounds it. */
export const fieldText = (f: ShapeField): string =>
  f.type + (f.optional ? ', may be missing' : '') + (f.default ? `, else ${f.default}` : '') + (f.limits ? `, ${f.limits}` : '')

/** What two shapes have of each other, in a sentence. */
export function sayBeside(b: Beside): string {
  const all: string[] = []
  if (b.same > 0) all.push(`${counted(b.same, 'field')} the same`)
  if (b.differs > 0) all.push(`${b.differs} otherwise`)
  if (b.lost > 0) all.push(`${b.lost} it lacks`)
  if (b.added > 0) all.push(`${b.added} more`)
  return all.join(', ')
}
