import { useEffect, useRef, type RefObject } from 'react'
import { inField } from '../gate'
import type { LedgerProps } from './column'
import { moveOf } from './moves'

interface Roving<R> {
  p: LedgerProps<R>
  rows: readonly R[]
  at: number
  box: RefObject<HTMLDivElement | null>
  scrollTo: ((index: number) => void) | null
}

/** Moves the cursor through the rows of a ledger, folds them, and opens them. */
export function useRoving<R>({ p, rows, at, box, scrollTo }: Roving<R>) {
  // Keys may come faster than the address follows: each goes on from the last.
  const cursor = useRef(at)
  useEffect(() => {
    cursor.current = at
  }, [at])
  const goTo = (index: number) => {
    const r = rows[index]
    if (r === undefined) return
    cursor.current = index
    p.onPick(p.idOf(r), r)
    if (scrollTo) scrollTo(index)
    else box.current?.querySelectorAll('[role=row]')[index + 1]?.scrollIntoView({ block: 'nearest' })
  }
  const fold = (away: boolean, r: R) => {
    const open = p.tree?.open(r)
    if (open === !away) return
    if (open !== undefined) p.tree?.onFold(r)
    else if (away) {
      // What can not be folded itself leads to what it lies in.
      const parent = p.tree?.parent(r)
      const i = rows.findIndex((x) => p.idOf(x) === parent)
      if (i >= 0) goTo(i)
    }
  }
  return (e: React.KeyboardEvent) => {
    if (e.defaultPrevented || inField(e.target) || (e.target as HTMLElement).closest('.editor')) return
    const r = rows[cursor.current]
    if (p.onKey?.(e, r)) {
      e.preventDefault()
      return
    }
    if (e.ctrlKey || e.metaKey || e.altKey || e.shiftKey) return
    const page = Math.max(1, Math.floor((box.current?.clientHeight ?? 560) / 28) - 2)
    const move = moveOf(e.key, cursor.current, rows.length, page)
    if (!move) return
    // A button or a link in a row acts by itself.
    if ('open' in move && e.target !== box.current) return
    if ('fold' in move && !p.tree) return
    e.preventDefault()
    if ('to' in move) goTo(move.to)
    else if (r !== undefined && 'fold' in move) fold(move.fold, r)
    else if (r !== undefined) p.onOpen?.(r)
  }
}
