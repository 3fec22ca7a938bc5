/** The part of a JSON Schema that the charter's uses. */
export interface Schema {
  type?: string
  $ref?: string
  description?: string
  properties?: Record<string, Schema>
  items?: Schema
}

/** Where in a charter the cursor stands, and what may follow there. */
export interface Spot {
  /** What is being typed: a key, the first key of a new item, or a value. */
  at: 'key' | 'item' | 'value'
  section: string
  key: string
  /** What of it stands there already, from an offset of the text. */
  typed: string
  from: number
  /** Keys that stand beside it. */
  beside: string[]
}

const entry = /^(\s*)((?:-\s+)*)(?:(["']?)([\w.-]+)\3\s*:(?:\s+|$))?(.*)$/

/** The parts of a line: how far its key is indented, with and without a dash, its key and the rest. */
function parts(line: string) {
  const m = entry.exec(line)
  const indent = m?.[1]?.length ?? 0
  const dash = m?.[2]?.length ?? 0
  return { indent, dash, col: indent + dash, key: m?.[4] ?? '', rest: m?.[5] ?? '' }
}

const blank = (line: string) => /^\s*(#.*)?$/.test(line)

/** Reads where the cursor stands from the lines before it; a charter is no deeper than lists of items at the top. */
export function spotAt(text: string, pos: number): Spot | null {
  const before = text.slice(0, pos)
  const start = before.lastIndexOf('\n') + 1
  const line = before.slice(start)
  if (/^[^"']*#/.test(line)) return null
  const above = before.slice(0, start).split('\n').slice(0, -1)
  const here = parts(line)
  // What a list in one line begins on an earlier one, and has not ended.
  let section = ''
  let holder = ''
  const beside: string[] = []
  let inItem = true
  for (let i = above.length - 1; i >= 0; i--) {
    const l = above[i] ?? ''
    if (blank(l)) continue
    const p = parts(l)
    if (p.key && p.col === 0) {
      section = p.key
      if (!holder && here.col > 0 && (p.rest === '' || open(p.rest))) holder = p.key
      break
    }
    if (p.key && inItem) {
      if (!holder && (open(p.rest) || (p.rest === '' && here.dash > 0 && here.indent >= p.col))) holder = p.key
      beside.push(p.key)
    }
    if (p.dash > 0 && p.key) inItem = false
  }
  const last = (s: string) => /[^\s,[\]"']*$/.exec(s)?.[0] ?? ''
  const of = here.key || (holder === section ? '' : holder)
  if (of) {
    const typed = last(here.rest)
    const top = here.key !== '' && here.col === 0
    return { at: 'value', section: top ? of : section, key: of, typed, from: pos - typed.length, beside }
  }
  const typed = here.rest
  if (/[^\w.-]/.test(typed)) return null
  const key: Spot = { at: 'key', section: here.col === 0 ? '' : section, key: '', typed, from: pos - typed.length, beside }
  if (here.col === 0) key.beside = tops(text)
  // After a dash the keys of an item begin anew; where items begin without one, one is wanted.
  if (here.dash > 0) key.beside = []
  else if (here.col > 0 && (beside.length === 0 || here.indent < itemColumn(above))) key.at = 'item'
  return key
}

/** Whether a list in one line is begun and not ended. */
const open = (rest: string) => rest.startsWith('[') && !rest.includes(']')

const tops = (text: string) =>
  text
    .split('\n')
    .map((l) => parts(l))
    .filter((p) => p.key && p.col === 0)
    .map((p) => p.key)

/** Where the keys of the item stand that the last lines belong to. */
function itemColumn(above: string[]): number {
  for (let i = above.length - 1; i >= 0; i--) {
    const p = parts(above[i] ?? '')
    if (p.key && p.dash > 0) return p.col
    if (p.key && p.col === 0) return 0
  }
  return 0
}

/** Something that may stand at a spot. */
export interface Hint {
  label: string
  detail: string
  /** What is put in for it, where that is more than the label. */
  apply?: string
}

/** A threshold by its key in a charter, with what it means. */
export interface Threshold {
  key: string
  meaning: string
}

/** The thresholds of rules: a rule's slug where it has one parameter, else the two with a dot between. */
export const thresholdsOf = (rules: { slug: string; parameters: { name: string; meaning: string }[] }[]): Threshold[] =>
  rules.flatMap((r) =>
    r.parameters.map((p) => ({ key: r.parameters.length === 1 ? r.slug : `${r.slug}.${p.name}`, meaning: p.meaning })),
  )

/** What can be hinted at besides the schema. */
export interface Known {
  layers: string[]
  thresholds: Threshold[]
  /** Folders and files for what is typed of one. */
  places: (typed: string) => Promise<string[]>
}

/** The names of the layers a text declares. */
export function layersIn(text: string): string[] {
  const out: string[] = []
  let section = ''
  for (const l of text.split('\n')) {
    const p = parts(l)
    if (p.key && p.col === 0) section = p.key
    else if (section === 'layers' && p.key === 'name') out.push(p.rest.replace(/\s+#.*$/, '').replace(/^["']|["']$/g, ''))
  }
  return out.filter(Boolean)
}

/** All that may stand at a spot of a charter. */
export async function hintsAt(spot: Spot, schema: Schema, known: Known): Promise<Hint[]> {
  const top = schema.properties ?? {}
  const section = top[spot.section]
  const fields = section?.items?.properties ?? {}
  if (spot.at !== 'value') {
    if (spot.section === 'thresholds')
      return known.thresholds
        .filter((t) => !spot.beside.includes(t.key))
        .map((t) => ({ label: t.key, detail: t.meaning, apply: `${t.key}: ` }))
    const keys = spot.section === '' ? top : fields
    const dash = spot.at === 'item' && section?.type === 'array' ? '- ' : ''
    return Object.entries(keys)
      .filter(([k]) => !spot.beside.includes(k) || dash !== '')
      .slice(0, dash ? 1 : undefined)
      .map(([k, s]) => ({
        label: dash + k,
        detail: s.description ?? '',
        apply: dash + k + ':' + (spot.section === '' ? (s.type === 'boolean' ? ' ' : '\n  ') : isList(s) ? ' [' : ' '),
      }))
  }
  const field = spot.section === spot.key ? section : fields[spot.key]
  if (field?.type === 'boolean') return ['true', 'false'].map((v) => ({ label: v, detail: field.description ?? '' }))
  switch (spot.key) {
    case 'may':
      return known.layers.map((l) => ({ label: l, detail: 'a layer' }))
    case 'holds':
    case 'places':
    case 'from':
    case 'to':
      return (await known.places(spot.typed)).map((p) => ({ label: p, detail: '' }))
  }
  return []
}

const isList = (s: Schema) => s.type === 'array' || s.$ref === '#/$defs/globs'
