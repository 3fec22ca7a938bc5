import { useMemo } from 'react'
import { useNarrowed } from '../api/queries'
import type { Where } from './place'

/** What belongs to the picked feature or role: its files, and the folders that hold any. */
export interface Narrowing {
  /** Reports whether a place belongs to it; true for all while it is still asked for. */
  holds: (path: string) => boolean
  files: number
  lines: number
  smells: number
}

/** The files of a list and every folder around them. */
export function around(paths: readonly string[]): Set<string> {
  const out = new Set<string>(['.'])
  for (const p of paths) {
    out.add(p)
    for (let i = p.lastIndexOf('/'); i > 0 && !out.has(p.slice(0, i)); i = p.lastIndexOf('/', i - 1)) out.add(p.slice(0, i))
  }
  return out
}

/** What a feature and a role are called together; "" when nothing is picked. */
export function narrowName(w: Pick<Where, 'feature' | 'role'>): string {
  const feature = w.feature === '-' ? 'shared' : w.feature
  return [feature, w.role].filter(Boolean).join(' · ')
}

/** What the reader narrowed all views to, null when nothing is. */
export function useNarrowing(where: Where): Narrowing | null {
  const on = where.feature !== '' || where.role !== ''
  const { data } = useNarrowed(where, on)
  return useMemo(() => {
    if (!on) return null
    const set = data && around(data.paths)
    return {
      holds: (path) => !set || set.has(path),
      files: data?.paths.length ?? 0,
      lines: data?.lines ?? 0,
      smells: data?.smells ?? 0,
    }
  }, [on, data])
}
