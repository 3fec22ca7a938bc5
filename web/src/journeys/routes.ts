import type { Route } from '../api/types'

/** The routes in which all words stand, in the path, the method or what answers. */
export function narrow(routes: readonly Route[], words: string): Route[] {
  const all = words.toLowerCase().split(/\s+/).filter(Boolean)
  return routes.filter((r) => {
    const text = `${r.method} ${r.pattern} ${r.handler_name} ${r.path} ${r.handler_path}`.toLowerCase()
    return all.every((w) => text.includes(w))
  })
}

/** The lists of the view, in the order they are shown. */
export const lists = [
  { name: 'routes', title: 'Routes' },
  { name: 'requests', title: 'Requests' },
  { name: 'messages', title: 'Messages' },
  { name: 'kept', title: 'What is kept' },
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
