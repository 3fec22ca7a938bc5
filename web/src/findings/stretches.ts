import { useQueries, type UseQueryResult } from '@tanstack/react-query'
import { useCallback, useMemo, useState } from 'react'
import { findingsQuery, stretch, type Listing } from '../api/queries'
import type { FindingList } from '../api/types'
import { rowsOf } from './list'

/** Which stretches of a list hold the rows in sight, the first one always among them. */
export function stretchesFor(from: number, to: number, size = stretch): number[] {
  const out = new Set([0])
  for (let s = Math.floor(from / size); s <= Math.floor(to / size); s++) out.add(s)
  return [...out].sort((a, b) => a - b)
}

/** A list of findings, of which what is in sight is fetched. While another filter's rows come, those before stay. */
export function useStretches(id: number, listing: Listing) {
  const [sight, setSight] = useState<readonly [number, number]>([0, 0])
  const wanted = useMemo(() => stretchesFor(sight[0], sight[1]), [sight])
  const combine = useCallback((all: UseQueryResult<FindingList>[]) => {
    return { error: all.find((q) => q.isError)?.error ?? null, data: all.map((q) => q.data).filter((d) => d !== undefined) }
  }, [])
  const { data, error } = useQueries({ queries: wanted.map((s) => findingsQuery(id, listing, s * stretch)), combine })
  const [before, setBefore] = useState<FindingList[]>([])
  if (data.length > 0 && data !== before) setBefore(data)
  const shown = data.length > 0 ? data : before
  const rows = useMemo(() => rowsOf(shown), [shown])
  const onSight = useCallback((from: number, to: number) => setSight((s) => (s[0] === from && s[1] === to ? s : [from, to])), [])
  return { rows, head: shown[0], error, onSight }
}
