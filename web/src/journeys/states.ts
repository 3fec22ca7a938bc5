import type { StateHolder } from '../api/types'
import { counted } from '../theme/ink'

export interface Arc {
  from: number
  to: number
  /** How many steps it stands for. */
  count: number
  path: string
}

export interface StatePicture {
  boxes: { name: string; x: number; width: number; never: boolean; stuck: boolean }[]
  arcs: Arc[]
  /** States that are gone to from any other. */
  any: number[]
  width: number
  height: number
  /** Where the row of boxes stands. */
  top: number
}

const boxHeight = 26
const gap = 34
export const letter = 7.4

/** The states in a row; steps on above it, steps back below, the farther the higher. */
export function pictureOf(h: StateHolder): StatePicture {
  const at = new Map(h.members.map((m, i) => [m, i]))
  let x = 8
  const boxes = h.members.map((name) => {
    const width = Math.max(46, name.length * letter + 18)
    const box = { name, x, width, never: h.never.includes(name), stuck: h.stuck.includes(name) }
    x += width + gap
    return box
  })
  const count = new Map<string, number>()
  const any = new Set<number>()
  for (const m of h.moves) {
    const to = at.get(m.to)
    if (to === undefined) continue
    const from = m.from ? at.get(m.from) : undefined
    if (m.from && from === undefined) continue
    if (from === undefined) any.add(to)
    else count.set(`${from} ${to}`, (count.get(`${from} ${to}`) ?? 0) + 1)
  }
  const high = Math.max(0, ...[...count.keys()].map((k) => Math.abs(rise(k))))
  const top = 16 + high * 13
  const arcs = [...count].map(([k, n]): Arc => {
    const [from = 0, to = 0] = k.split(' ').map(Number)
    return { from, to, count: n, path: arcPath(boxes, from, to, top) }
  })
  return { boxes, arcs, any: [...any].sort((a, b) => a - b), width: x - gap + 8, height: top * 2 + boxHeight, top }
}

/** How far a step goes, along the row or back. */
const rise = (key: string): number => {
  const [from = 0, to = 0] = key.split(' ').map(Number)
  return to - from || 1
}

function arcPath(boxes: StatePicture['boxes'], from: number, to: number, top: number): string {
  const a = boxes[from]
  const b = boxes[to]
  if (!a || !b) return ''
  const on = to >= from
  const y = on ? top : top + boxHeight
  const lift = (Math.abs(to - from) || 1) * 17 * (on ? -1 : 1)
  const start = a.x + a.width * (on ? 0.66 : 0.34)
  const end = from === to ? a.x + a.width * 0.34 : b.x + b.width * (on ? 0.34 : 0.66)
  return `M${start} ${y} C${start} ${y + lift}, ${end} ${y + lift}, ${end} ${y}`
}

/** What may be wrong with the states, in sentences; none where nothing is. */
export function sayFaults(h: StateHolder): string[] {
  const all: string[] = []
  if (h.moves.length > 0 && h.never.length > 0 && h.never.length < h.members.length)
    all.push(`Nothing was seen to lead to ${h.never.join(', ')}.`)
  if (h.stuck.length > 0 && h.stuck.length < h.members.length) all.push(`Nothing was seen to lead out of ${h.stuck.join(', ')}.`)
  return all
}

/** How many steps and choices there are, in a line. */
export const sayStates = (moves: number, choices: number): string =>
  [moves > 0 && counted(moves, 'step'), choices > 0 && counted(choices, 'choice')].filter(Boolean).join(', ')
