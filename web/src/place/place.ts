import { useCallback, useMemo } from 'react'
import { useLocation, useNavigate, useParams } from 'react-router'
import type { At } from '../api/queries'

export type View = 'overview' | 'layout' | 'weave' | 'dependencies' | 'journeys' | 'findings' | 'code'

/** The views in working order, with the digit that never changes. */
export const views: { view: View; title: string; digit: string; hint: string }[] = [
  { view: 'overview', title: 'Overview', digit: '1', hint: 'what it is, on one sheet' },
  { view: 'layout', title: 'Layout', digit: '2', hint: 'its folders and what they hold' },
  { view: 'weave', title: 'Weave', digit: '3', hint: 'roles by features: how it is cut' },
  { view: 'dependencies', title: 'Dependencies', digit: '4', hint: 'what needs what, in levels' },
  { view: 'journeys', title: 'Journeys', digit: '5', hint: 'what comes in, and what answers' },
  { view: 'findings', title: 'Findings', digit: '9', hint: 'what was recorded' },
  { view: 'code', title: 'Code', digit: '0', hint: 'the text of a file' },
]

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
}

export function whereFrom(view: string | undefined, id: number, q: URLSearchParams): Where {
  const line = Number(q.get('line')) || 0
  return {
    id,
    view: views.some((v) => v.view === view) ? (view as View) : 'overview',
    at: q.get('at') || '.',
    pick: q.get('pick') || '',
    survey: Number(q.get('survey')) || 0,
    line,
    end: Math.max(line, Number(q.get('end')) || 0),
    feature: q.get('feature') || '',
    role: q.get('role') || '',
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
  for (const [k, v] of Object.entries(more)) if (v) q.set(k, v)
  const s = q.toString()
  return `/c/${w.id}/${w.view}${s ? `?${s}` : ''}`
}

/** What stays of where one is when one goes elsewhere: the survey, and what the views are narrowed to. */
export const stay = (w: Where) => ({ id: w.id, survey: w.survey, feature: w.feature, role: w.role })

export const parentOf = (path: string): string => (path.includes('/') ? path.slice(0, path.lastIndexOf('/')) : '.')

export const nameOf = (path: string): string => path.slice(path.lastIndexOf('/') + 1)

/**
 * Where the reader is by the address itself. Keys may come faster than a view
 * is drawn; each must go on from the last, not from what still stands there.
 */
export function whereNow(): Where {
  const [, , id, view] = window.location.pathname.split('/')
  return whereFrom(view, Number(id), new URLSearchParams(window.location.search))
}

/** Reads the place from the URL and moves it. */
export function useWhere() {
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
  /** Changes what is picked without adding a step to the history. */
  const pick = useCallback(
    (to: { pick?: string; line?: number; end?: number }) => {
      const q = new URLSearchParams(window.location.search)
      const set = (k: string, v: string | number | undefined) => (v ? q.set(k, String(v)) : q.delete(k))
      if ('pick' in to) set('pick', to.pick)
      if ('line' in to) {
        set('line', to.line)
        set('end', to.end && to.line && to.end > to.line ? to.end : undefined)
      }
      void navigate({ pathname: window.location.pathname, search: q.toString() }, { replace: true })
    },
    [navigate],
  )
  /** Changes how the view shows things: its sorting, filter and grouping. */
  const show = useCallback(
    (to: Record<string, string>) => {
      const q = new URLSearchParams(window.location.search)
      for (const [k, v] of Object.entries(to))
        if (v) q.set(k, v)
        else q.delete(k)
      void navigate({ pathname: window.location.pathname, search: q.toString() }, { replace: true })
    },
    [navigate],
  )
  return { where, query, go, pick, show }
}

/** The URL of a piece of evidence: a file opens at its line, a folder in Layout. */
export function evidenceUrl(w: Where, e: { path: string; line: number }, file: boolean): string {
  return file ? urlOf({ ...stay(w), view: 'code', at: e.path, line: e.line }) : urlOf({ ...stay(w), view: 'layout', at: e.path })
}
