import type { Drawing } from '../api/types'

type Box = Drawing['boxes'][number]

const centre = (b: Box) => b.x + b.w / 2

/** The boxes of a drawing from the left, row by row: what a hand has to keep of it. */
const inOrder = (boxes: readonly Box[]) => [...boxes].sort((a, b) => a.y - b.y || a.x - b.x)

/**
 * The order of all boxes once one of them stands so far to the side. Boxes stay
 * in their rows, since these tell what depends on what. It is null when the box
 * would stand where it stood.
 */
export function movedBy(boxes: readonly Box[], path: string, dx: number): string[] | null {
  const at = boxes.find((b) => b.path === path)
  if (!at) return null
  const x = (b: Box) => centre(b) + (b === at ? dx : 0)
  const before = inOrder(boxes)
  const after = [...boxes].sort((a, b) => a.y - b.y || x(a) - x(b))
  return after.every((b, i) => b === before[i]) ? null : after.map((b) => b.path)
}

/** The order once a box has changed places with its neighbour: −1 to the left, 1 to the right. */
export function stepped(boxes: readonly Box[], path: string, step: -1 | 1): string[] | null {
  const list = inOrder(boxes)
  const i = list.findIndex((b) => b.path === path)
  const [a, b] = [list[i], list[i + step]]
  if (!a || !b || a.y !== b.y) return null
  list[i] = b
  list[i + step] = a
  return list.map((x) => x.path)
}

/** A new order together with boxes that are not drawn now but were put somewhere before. */
export function keeping(order: readonly string[], before: readonly string[]): string[] {
  const now = new Set(order)
  return [...order, ...before.filter((p) => !now.has(p))]
}
