import type { Route } from '../api/types'

/** The routes in which all words stand, in the path, the method or what answers. */
export function narrow(routes: readonly Route[], words: string): Route[] {
  const all = words.toLowerCase().split(/\s+/).filter(Boolean)
  return routes.filter((r) => {
    const text = `${r.method} ${r.pattern} ${r.handler_name} ${r.path} ${r.handler_path}`.toLowerCase()
    return all.every((w) => text.includes(w))
  })
}
