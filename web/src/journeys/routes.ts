import type { Resource, Route } from '../api/types'
import { counted, figure } from '../theme/ink'

/** The routes in which all words stand, in the path, the method or what answers. */
export function narrow(routes: readonly Route[], words: string): Route[] {
  const all = words.toLowerCase().split(/\s+/).filter(Boolean)
  return routes.filter((r) => {
    const text = `${r.method} ${r.pattern} ${r.handler_name} ${r.path} ${r.handler_path}`.toLowerCase()
    return all.every((w) => text.includes(w))
  })
}

/** What tells a route from all others. */
export const idOf = (r: Route): string => `${r.method} ${r.pattern} ${r.path}:${r.line}`

/** A route in the query of an address that asks for its way. */
export const asQuery = (r: Route): Record<string, string> => ({
  at: r.path,
  line: String(r.line),
  method: r.method,
  pattern: r.pattern,
})

/** Whether an address is typed, with a method before it or without, and not words. */
export const isAddress = (wanted: string): boolean => /^\s*(?:(?:get|head|post|put|patch|delete|options) +)?\//i.test(wanted)

/** What a list of routes is, in a sentence: of a typed address, which route answers it. */
export function saysOf(list: readonly Route[], typed: string, wanted: string, place: string): string {
  const [first, ...behind] = list
  if (!typed)
    return wanted
      ? `${counted(list.length, 'route')} with these words.`
      : `${counted(list.length, 'route')} declared or answered in ${place}.`
  if (!first) return `Nothing found in ${place} answers ${typed}.`
  const answers = `${first.method === 'ANY' ? '' : `${first.method} `}${first.pattern} answers ${typed}`
  return behind.length === 0
    ? `${answers}, and nothing else fits.`
    : `${answers}; ${behind.length === 1 ? 'one more fits and stands' : `${figure(behind.length)} more fit and stand`} behind it.`
}

/** What is usually done with a resource, as its columns are called. */
export const usual = ['list', 'create', 'read', 'update', 'delete'] as const

/** What a resource asks first: what most of its routes do, and how many ask nothing. */
export function asksFirst(x: Resource): string {
  if (x.open.length > 0) return `${x.open.length} of ${x.routes.length} ${x.open.length === 1 ? 'asks' : 'ask'} nothing`
  return x.guards.join(', ')
}

/** The lists of the view, in the order they are shown. */
export const lists = [
  { name: 'routes', title: 'Routes' },
  { name: 'resources', title: 'Resources' },
  { name: 'rights', title: 'Rights' },
  { name: 'requests', title: 'Requests' },
  { name: 'messages', title: 'Messages' },
  { name: 'kept', title: 'What is kept' },
  { name: 'states', title: 'States' },
] as const

export type ListName = (typeof lists)[number]['name']

/** The rows whose words hold all that is asked for. */
export function having<T>(rows: readonly T[], words: string, text: (row: T) => string): T[] {
  const all = words.toLowerCase().split(/\s+/).filter(Boolean)
  return rows.filter((r) => {
    const t = text(r).toLowerCase()
    return all.every((w) => t.includes(w))
  })
}

/**
 * A pattern as it is read: what a form of text puts into an address stands by its name, since the form
 * itself hides the end of the address where there is little room.
 */
export function shownPattern(pattern: string): string {
  let out = ''
  for (let i = 0; i < pattern.length;) {
    const name = /^\(\?P?<(\w+)>/.exec(pattern.slice(i))?.[1]
    if (!name) {
      out += pattern[i++]
      continue
    }
    let depth = 0
    let end = i
    for (; end < pattern.length; end++) {
      if (pattern[end] === '\\') end++
      else if (pattern[end] === '(') depth++
      else if (pattern[end] === ')' && --depth === 0) break
    }
    out += `<${name}>`
    i = end + 1
  }
  return out
}
