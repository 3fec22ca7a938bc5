import { useLayoutEffect, type RefObject } from 'react'

/** Tells the width of an element, in px, at once and whenever it changes. `anew` changes when another element may stand there. */
export function useWidth(box: RefObject<HTMLElement | null>, onWidth: ((px: number) => void) | undefined, anew?: unknown) {
  useLayoutEffect(() => {
    const el = box.current
    if (!el || !onWidth) return
    const o = new ResizeObserver(([e]) => e && onWidth(e.contentRect.width))
    o.observe(el)
    onWidth(el.clientWidth)
    return () => o.disconnect()
  }, [box, onWidth, anew])
}
