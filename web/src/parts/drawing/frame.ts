/** What of a drawing is in sight: its left upper corner and its size, in the drawing's own px. */
export interface Sight {
  x: number
  y: number
  w: number
  h: number
}

export interface Size {
  w: number
  h: number
}

/** The closest and the farthest one may look, as px of the screen for one of the drawing. */
const closest = 4
const farthest = 0.2

/** All of a drawing in a box: as large as it is, smaller where it does not fit. */
export function fit(drawing: Size, box: Size): Sight {
  const scale = Math.min(1, box.w / Math.max(1, drawing.w), box.h / Math.max(1, drawing.h))
  const w = box.w / scale
  const h = box.h / scale
  return { x: (drawing.w - w) / 2, y: Math.min(0, (drawing.h - h) / 2), w, h }
}

/** Closer or farther by a factor around a point of the drawing, which stays where it is. */
export function zoom(s: Sight, box: Size, factor: number, at: { x: number; y: number }): Sight {
  const scale = Math.max(farthest, Math.min(closest, (box.w / s.w) * factor))
  const w = box.w / scale
  const h = box.h / scale
  return { x: at.x - ((at.x - s.x) * w) / s.w, y: at.y - ((at.y - s.y) * h) / s.h, w, h }
}

/** Moved by so many px of the screen, never so far that nothing of the drawing is left in sight. */
export function pan(s: Sight, box: Size, drawing: Size, dx: number, dy: number): Sight {
  const keep = (v: number, size: number, all: number) => Math.max(-size * 0.8, Math.min(all - size * 0.2, v))
  return { ...s, x: keep(s.x - (dx * s.w) / box.w, s.w, drawing.w), y: keep(s.y - (dy * s.h) / box.h, s.h, drawing.h) }
}

/** The least movement that brings a rectangle into sight, with a margin around it. */
export function reveal(s: Sight, r: Sight, margin = 24): Sight {
  const shift = (from: number, size: number, a: number, len: number) => {
    if (a - margin < from) return a - margin
    if (a + len + margin > from + size) return Math.min(a - margin, a + len + margin - size)
    return from
  }
  return { ...s, x: shift(s.x, s.w, r.x, r.w), y: shift(s.y, s.h, r.y, r.h) }
}

/** The nearest of some rectangles in the direction of an arrow key, from the middle of one of them. */
export function towards<T extends Sight>(all: readonly T[], at: T, key: string): T | undefined {
  const way = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[key]
  if (!way) return undefined
  const mid = (r: Sight) => ({ x: r.x + r.w / 2, y: r.y + r.h / 2 })
  const from = mid(at)
  const sameRow = (r: Sight) => Math.abs(mid(r).y - from.y) < 2
  const far = (r: Sight) => Math.abs(mid(r).x - from.x) + 3 * Math.abs(mid(r).y - from.y)
  return all
    .filter((r) =>
      way[0] ? sameRow(r) && Math.sign(mid(r).x - from.x) === way[0] : !sameRow(r) && Math.sign(mid(r).y - from.y) === way[1],
    )
    .sort((a, b) => far(a) - far(b))[0]
}

/** The same where the rectangles stand in columns: up and down stay in one, left and right lead to the nearest of the next. */
export function towardsInColumns<T extends Sight>(all: readonly T[], at: T, key: string): T | undefined {
  const turned = { ArrowLeft: 'ArrowUp', ArrowRight: 'ArrowDown', ArrowUp: 'ArrowLeft', ArrowDown: 'ArrowRight' }[key]
  if (!turned) return undefined
  const turn = (r: T) => ({ x: r.y, y: r.x, w: r.h, h: r.w, of: r })
  const from = turn(at)
  return towards(
    all.map((r) => (r === at ? from : turn(r))),
    from,
    turned,
  )?.of
}
