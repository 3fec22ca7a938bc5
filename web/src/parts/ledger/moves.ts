/** What a key asks of a list: go to a row, fold or unfold one, or open it. */
export type Move = { to: number } | { fold: boolean } | { open: true } | null

/**
 * What a key means in a list of so many rows, where one is picked (-1 for
 * none). `page` is how many rows are in sight.
 */
export function moveOf(key: string, at: number, count: number, page: number): Move {
  const to = (n: number): Move => (count === 0 ? null : { to: Math.max(0, Math.min(count - 1, n)) })
  switch (key) {
    case 'ArrowDown':
      return to(at + 1)
    case 'ArrowUp':
      return to(at - 1)
    case 'PageDown':
      return to(at + page)
    case 'PageUp':
      return to(at - page)
    case 'Home':
      return to(0)
    case 'End':
      return to(count - 1)
    case 'ArrowRight':
      return { fold: false }
    case 'ArrowLeft':
      return { fold: true }
    case 'Enter':
      return at < 0 ? null : { open: true }
  }
  return null
}

/** How a list is sorted: by which column, and whether from the largest down. */
export interface Sorting {
  by: string
  down: boolean
}

/** The sorting after a column's head was pressed: figures begin with the largest, words with the first. */
export function resorted(now: Sorting | null, by: string, figures: boolean): Sorting {
  return now?.by === by ? { by, down: !now.down } : { by, down: figures }
}

/** A sorting as it stands in the address: "lines" or "lines-down". */
export const sortingText = (s: Sorting | null): string => (s ? `${s.by}${s.down ? '-down' : ''}` : '')

export function sortingFrom(text: string | null): Sorting | null {
  if (!text) return null
  return text.endsWith('-down') ? { by: text.slice(0, -5), down: true } : { by: text, down: false }
}
