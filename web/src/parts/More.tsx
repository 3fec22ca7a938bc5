import { useState } from 'react'
import { figure } from '../theme/ink'

/** The first of a long list, and how many there are. */
export function useSome<T>(all: readonly T[], first: number) {
  const [count, setCount] = useState(first)
  return { shown: all.slice(0, count), total: all.length, more: () => setCount((n) => n + 5 * first) }
}

/** Says how much of a list is shown, and shows more: nothing is cut in silence. */
export function More({ some }: { some: { shown: readonly unknown[]; total: number; more: () => void } }) {
  if (some.shown.length >= some.total) return null
  return (
    <li>
      <button type="button" className="quiet" onClick={some.more}>
        {figure(some.shown.length)} of {figure(some.total)}: show more
      </button>
    </li>
  )
}
