import { useEffect, useRef } from 'react'
import { useMarkRead } from '../api/changes'
import type { Code as CodeData } from '../api/types'

/**
 * Sets the read mark when a file is left after it was open for as long as
 * reading some of it takes.
 */
export function useReadOnLeaving(c: CodeData, id: number, by: string) {
  const { mutate } = useMarkRead(id)
  const opened = useRef(0)
  useEffect(() => {
    opened.current = Date.now()
    const path = c.path
    const needed = Math.min(45_000, 4_000 + c.lines * 60)
    const read = c.read_mark
    return () => {
      if (!read && c.text && Date.now() - opened.current > needed) mutate({ path, read: true, by })
    }
  }, [c, by, mutate])
}
