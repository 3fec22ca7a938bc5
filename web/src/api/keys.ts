import type { Happened } from './types'

/** A codebase, a survey of it (0 for the newest) and a place: where a view looks. */
export interface At {
  id: number
  survey: number
  at: string
}

/** What all views are narrowed to: a feature, a role or both. */
export interface Narrow {
  feature: string
  role: string
}

/**
 * The keys of all queries. Whatever belongs to a codebase begins with it and
 * its name, so that a change of one part reaches the queries that show it.
 */
export const keys = {
  home: ['home'] as const,
  settings: ['settings'] as const,
  rules: ['rules'] as const,
  folders: (at: string) => ['folders', at] as const,
  charterSchema: ['charter schema'] as const,
  /** Everything of a codebase. */
  codebase: (id: number) => ['codebase', id] as const,
  /** Everything of one name, as all margins of a codebase. */
  named: (id: number, name: Name) => ['codebase', id, name] as const,
  /** What is asked for of a codebase beyond any survey. */
  of: (id: number, name: Name, ...rest: unknown[]) => ['codebase', id, name, ...rest] as const,
  /** A view of a place. */
  view: (name: Name, a: At, ...rest: unknown[]) => ['codebase', a.id, name, a.survey, a.at, ...rest] as const,
}

/** What a query is about. */
export type Name =
  | 'status'
  | 'overview'
  | 'section'
  | 'layout'
  | 'margin'
  | 'code'
  | 'smells'
  | 'desk'
  | 'parts'
  | 'part'
  | 'shapes'
  | 'shape'
  | 'reach'
  | 'names'
  | 'texts'
  | 'routes'
  | 'journey'
  | 'tried'
  | 'past'
  | 'definition'
  | 'rename'
  | 'weave'
  | 'built'
  | 'narrowed'
  | 'dependencies'
  | 'belongings'
  | 'arrangement'
  | 'pictures'
  | 'pages'
  | 'page'
  | 'between'
  | 'tried'
  | 'charter'
  | 'overrules'
  | 'flows'
  | 'rights'
  | 'states'
  | 'state'
  | 'wiring'
  | 'siblings'
  | 'places'
  | 'findings'
  | 'finding'
  | 'recorded'
  | 'people'
  | 'changes'
  | 'brief'
  | 'surveys'
  | 'beside'

/** What each part of a review shows in, besides findings, which are put in place. */
const shownIn: Record<Exclude<Happened['part'], 'findings' | 'surveys'>, readonly Name[]> = {
  marks: ['layout', 'margin'],
  judged: [
    'overview',
    'section',
    'layout',
    'margin',
    'code',
    'smells',
    'desk',
    'parts',
    'part',
    'shapes',
    'shape',
    'reach',
    'names',
    'texts',
    'routes',
    'journey',
    'tried',
    'past',
    'definition',
    'weave',
    'built',
    'narrowed',
    'dependencies',
    'belongings',
    'between',
    'charter',
    'overrules',
    'flows',
    'rights',
    'states',
    'state',
    'wiring',
    'brief',
    'beside',
  ],
  arrangement: ['arrangement', 'dependencies'],
  pictures: ['pictures'],
  pages: ['pages', 'page'],
}

/** The queries that a change may have made untrue; null for all of the codebase. */
export function touchedBy(part: Happened['part']): readonly Name[] | null {
  if (part === 'surveys') return null
  return part === 'findings' ? [] : shownIn[part]
}
