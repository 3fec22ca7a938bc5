import type { Stop, Way } from '../api/types'

/** Something that runs around what answers: with the place where it is put there, and that of what runs. */
export interface Turn {
  name: string
  path: string
  line: number
  to: string
  toLine: number
  note: string
}

/** What runs around a route, in running order: what is put on its routers and classes, then what the route itself names. */
export function inOrder(way: Pick<Way, 'around' | 'guards'>): { before: Turn[]; after: Turn[]; failing: Turn[] } {
  const turn = (x: Way['around'][number]): Turn => ({
    name: x.name || 'a function written in place',
    path: x.path,
    line: x.line,
    to: x.to_path,
    toLine: x.to_line,
    note: x.when === 'around' ? 'around it' : '',
  })
  const of = (...when: string[]) => way.around.filter((x) => when.includes(x.when)).map(turn)
  const above = new Set(way.around.map((x) => x.name))
  const own = way.guards
    .filter((g) => !above.has(g))
    .map((g) => ({ name: g, path: '', line: 0, to: '', toLine: 0, note: 'at the route' }))
  return { before: [...of('before', 'around'), ...own], after: of('after'), failing: of('error') }
}

const verbs: Record<string, string> = { raise: 'raises', turn: 'turns what failed into', swallow: 'swallows' }

/** A few words on a stop, with the lines that they are true of. */
export interface Told {
  text: string
  lines: number[]
  unsure: boolean
}

/** What becomes of faults at a stop, and that all of it holds or nothing: the same at several lines is told once. */
export function toldOf(stop: Pick<Stop, 'bounds' | 'faults'>): Told[] {
  const told = new Map<string, Told>()
  for (const f of stop.faults) {
    const text = `${verbs[f.what] ?? f.what} ${f.name || (f.what === 'swallow' ? 'what fails' : 'a fault')}`
    const before = told.get(text)
    if (before) before.lines.push(f.line)
    else told.set(text, { text, lines: [f.line], unsure: f.what === 'swallow' })
  }
  const bounds = { text: `all of it holds or nothing: ${stop.bounds}`, lines: [], unsure: false }
  return [...(stop.bounds ? [bounds] : []), ...told.values()]
}
