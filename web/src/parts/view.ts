import type { ComponentType } from 'react'

/** The kinds of place a view can have something to say of. */
export type PlaceKind = 'codebase' | 'folder' | 'file'

/** One view: all that the rest of the interface knows of it. Navigation, keys, key card, tests and pictures come from the list of these. */
export interface ViewEntry {
  /** Its name in addresses. */
  id: string
  /** The digit that opens it, which never changes. */
  digit: string
  title: string
  hint: string
  /** What it shows of each kind of place. A kind that is missing has nothing there. */
  says: Partial<Record<PlaceKind, string>>
  /** Keys of its own lists and drawings with what they do, for the key card. */
  keys: readonly (readonly [key: string, does: string])[]
  /** Whether it has a legend that `g` shows and hides. */
  legend?: boolean
  load: () => Promise<{ default: ComponentType }>
}

/**
 * The view that opens for a place of that kind when somebody looks at it
 * through one that has nothing to say of it.
 */
export function nearest(views: readonly ViewEntry[], id: string, kind: PlaceKind): string {
  const wanted = views.find((v) => v.id === id)
  if (!wanted || wanted.says[kind]) return id
  // A text belongs to a file; what holds files is looked at as a list of them.
  const fallback = kind === 'file' ? 'code' : 'layout'
  return views.some((v) => v.id === fallback && v.says[kind]) ? fallback : (views.find((v) => v.says[kind])?.id ?? id)
}
