import type { PictureBox } from '../../api/types'

/** A rectangle of a picture, in shares of it. */
export type Rect = Pick<PictureBox, 'x' | 'y' | 'w' | 'h'>

/** The smallest box that can be seen and hit. */
const least = 0.02

const within = (v: number, low: number, high: number) => Math.max(low, Math.min(high, v))
const rounded = (v: number) => Math.round(v * 10000) / 10000

/** The box between two points, whichever came first, kept inside of the picture; null for a mere click. */
export function boxOf(from: { x: number; y: number }, to: { x: number; y: number }): Rect | null {
  const x = within(Math.min(from.x, to.x), 0, 1)
  const y = within(Math.min(from.y, to.y), 0, 1)
  const w = within(Math.max(from.x, to.x), 0, 1) - x
  const h = within(Math.max(from.y, to.y), 0, 1) - y
  return w < least || h < least ? null : { x: rounded(x), y: rounded(y), w: rounded(w), h: rounded(h) }
}

/** A box moved by an arrow key, or with Shift made larger or smaller; null for other keys. */
export function keyed(r: Rect, key: string, shift: boolean): Rect | null {
  const step = 0.02
  const dx = key === 'ArrowRight' ? step : key === 'ArrowLeft' ? -step : 0
  const dy = key === 'ArrowDown' ? step : key === 'ArrowUp' ? -step : 0
  if (dx === 0 && dy === 0) return null
  if (shift) return { ...r, w: rounded(within(r.w + dx, least, 1 - r.x)), h: rounded(within(r.h + dy, least, 1 - r.y)) }
  return { ...r, x: rounded(within(r.x + dx, 0, 1 - r.w)), y: rounded(within(r.y + dy, 0, 1 - r.h)) }
}

/** Something that a box can be tied to. */
export interface Tie {
  path: string
  name: string
  line: number
}

/** The candidate whose name was typed or picked: by all of it, else the only one that it begins. */
export function tieFor(typed: string, all: readonly Tie[]): Tie | undefined {
  const t = typed.trim().toLowerCase()
  if (!t) return undefined
  const same = all.find((c) => c.name.toLowerCase() === t)
  if (same) return same
  const begun = all.filter((c) => c.name.toLowerCase().startsWith(t))
  return begun.length === 1 ? begun[0] : undefined
}
