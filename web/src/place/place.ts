import { createContext, useCallback, useContext, useMemo } from 'react'
import { useLocation, useNavigate, useParams } from 'react-router'
import type { At } from '../api/queries'

/** The name of a view in addresses. Which there are, the shell knows; a place only leads to them. */
export type View = string

/** Where the reader is and how it is looked at; all of it stands in the URL. */
export interface Where extends At {
  view: View
  /** The row, cell or line picked inside the view; empty when nothing is. */
  pick: string
  line: number
  end: number
  /** What all views are narrowed to, as it was picked in the weave: "-" for what belongs to no feature. */
  feature: string
  role: string
  /** Whether the margin is shown: "on" or "off" as the reader set it, "" as the width of the page has it. */
  margin: string
  /** "off" where the reader has put the legend away. */
  legend: string
  /** A second place looked at next to this one, in the same view; null where there is none. */
  beside: At | null
}

export function whereFrom(view: string | undefined, id: number, q: URLSearchParams): Where {
  const line = Number(q.get('line')) || 0
  return {
    id,
    view: view || 'overview',
    at: q.get('at') || '.',
    pick: q.get('pick') || '',
    survey: Number(q.get('survey')) || 0,
    line,
    end: Math.max(line, Number(q.get('end')) || 0),
    feature: q.get('feature') || '',
    role: q.get('role') || '',
    margin: q.get('margin') || '',
    legend: q.get('legend') || '',
    beside: q.has('with')
      ? { id: Number(q.get('with-codebase')) || id, survey: Number(q.get('with-survey')) || 0, at: q.get('with') || '.' }
      : null,
  }
}

/** The URL of a place in a view; what is left out stays empty. */
export function urlOf(w: Partial<Where> & { id: number; view: View }, more: Record<string, string> = {}): string {
  const q = new URLSearchParams()
  if (w.at && w.at !== '.') q.set('at', w.at)
  if (w.pick) q.set('pick', w.pick)
  if (w.line) q.set('line', String(w.line))
  if (w.line && w.end && w.end > w.line) q.set('end', String(w.end))
  if (w.survey) q.set('survey', String(w.survey))
  if (w.feature) q.set('feature', w.feature)
  if (w.role) q.set('role', w.role)
  if (w.margin) q.set('margin', w.margin)
  if (w.legend) q.set('legend', w.legend)
  if (w.beside) {
    q.set('with', w.beside.at)
    if (w.beside.id !== w.id) q.set('with-codebase', String(w.beside.id))
    if (w.beside.survey) q.set('with-survey', String(w.beside.survey))
  }
  for (const [k, v] of Object.entries(more)) if (v) q.set(k, v)
  const s = q.toString()
  return `/c/${w.id}/${w.view}${s ? `?${s}` : ''}`
}

/** The URL of a file that is made of one thing at a place. */
export function handOutUrl(w: Pick<Where, 'id' | 'survey'>, file: string, of: Record<string, string>): string {
  const q = new URLSearchParams(Object.entries(of).filter(([, v]) => v))
  if (w.survey) q.set('survey', String(w.survey))
  return `/api/codebases/${w.id}/export/${file}?${q.toString()}`
}

/** What stays of where one is when one goes elsewhere: the survey, what the views are narrowed to, and how the page is set up. */
export const stay = (w: Where) => ({
  id: w.id,
  survey: w.survey,
  feature: w.feature,
  role: w.role,
  margin: w.margin,
  legend: w.legend,
  beside: w.beside,
})

export const parentOf = (path: string): string => (path.includes('/') ? path.slice(0, path.lastIndexOf('/')) : '.')

export const nameOf = (path: string): string => path.slice(path.lastIndexOf('/') + 1)

/** The name of a definition without all but the nearest of what it stands in. */
export const nearName = (qualified: string): string => qualified.split('.').slice(-2).join('.')

/**
 * Where the reader is by the address itself. Keys may come faster than a view
 * is drawn; each must go on from the last, not from what still stands there.
 */
export function whereNow(): Where {
  const [, , id, view] = window.location.pathname.split('/')
  return whereFrom(view, Number(id), new URLSearchParams(window.location.search))
}

/** What reads and moves a place. */
export interface Wayfinder {
  where: Where
  query: URLSearchParams
  /** Goes to another place or view. */
  go: (to: Partial<Where>, more?: Record<string, string>, replace?: boolean) => void
  /** Changes what is picked without adding a step to the history. */
  pick: (to: { pick?: string; line?: number; end?: number }) => void
  /** Changes how the view shows things: its sorting, filter and grouping. What adds to a list goes on from the list of now. */
  show: (to: Looks | ((now: URLSearchParams) => Looks)) => void
}

/** Parts of an address that say how a view shows things; an empty one is taken out. */
export type Looks = Record<string, string>

/** The list with one of its members put in, or taken out where it was. */
export function flipped(list: Iterable<string>, one: string): string[] {
  const next = new Set(list)
  if (!next.delete(one)) next.add(one)
  return [...next]
}

/** The place of what stands beside, where there is one: what is drawn inside of it reads and moves that. */
export const BesideContext = createContext<Wayfinder | null>(null)

/** The place the reader is at, and how to move it. */
export function useWhere(): Wayfinder {
  const own = useAddress()
  return useContext(BesideContext) ?? own
}

/** Reads the place from the URL and moves it. */
export function useAddress(): Wayfinder {
  const { id, view } = useParams()
  const { search } = useLocation()
  const navigate = useNavigate()
  const where = useMemo(() => whereFrom(view, Number(id), new URLSearchParams(search)), [id, view, search])
  const query = useMemo(() => new URLSearchParams(search), [search])
  const go = useCallback(
    (to: Partial<Where>, more?: Record<string, string>, replace = false) => {
      const now = whereNow()
      const next: Where = { ...now, pick: '', line: 0, end: 0, ...to, at: to.at ?? now.at }
      void navigate(urlOf(next, more), { replace })
    },
    [navigate],
  )
  const pick = useCallback(
    (to: { pick?: string; line?: number; end?: number }) => void navigate(changed(picking(to)), { replace: true }),
    [navigate],
  )
  const show = useCallback<Wayfinder['show']>(
    (to) => {
      // A second click may come before the first is drawn; it must not undo it.
      const looks = typeof to === 'function' ? to(new URLSearchParams(window.location.search)) : to
      void navigate(changed(looks), { replace: true })
    },
    [navigate],
  )
  return useMemo(() => ({ where, query, go, pick, show }), [where, query, go, pick, show])
}

/** The parts of an address that say what is picked; empty ones are taken out of it. */
function picking(to: { pick?: string; line?: number; end?: number }): Record<string, string> {
  const line = to.line ? String(to.line) : ''
  const end = to.line && to.end && to.end > to.line ? String(to.end) : ''
  return { ...('pick' in to ? { pick: to.pick ?? '' } : {}), ...('line' in to ? { line, end } : {}) }
}

/** This page's address with some of its parts set, or taken out where they are empty. */
function changed(to: Record<string, string>) {
  const q = new URLSearchParams(window.location.search)
  for (const [k, v] of Object.entries(to))
    if (v) q.set(k, v)
    else q.delete(k)
  return { pathname: window.location.pathname, search: q.toString() }
}

/** The URL of a piece of evidence: a file opens at its line, a folder in Layout. */
export function evidenceUrl(w: Where, e: { path: string; line: number }, file: boolean): string {
  return file ? urlOf({ ...stay(w), view: 'code', at: e.path, line: e.line }) : urlOf({ ...stay(w), view: 'layout', at: e.path })
}
