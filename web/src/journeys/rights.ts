import type { Permitted, Allowed } from '../api/types'
import { counted, figure } from '../theme/ink'

type Check = Permitted['checks'][number]

/** Where a right is checked, from outside to inside, with the letter that stands for it. */
export const layers = [
  { id: 'screen', letter: 's', text: 'on the screen' },
  { id: 'route', letter: 'r', text: 'at the route' },
  { id: 'inside', letter: 'i', text: 'further in' },
] as const

/** How many rights have a column of their own; the others share one. */
export const mostColumns = 6

/** The rights with a column of their own, and whether more are left. */
export const columnsOf = (names: readonly string[]): { own: string[]; more: boolean } => ({
  own: names.slice(0, mostColumns),
  more: names.length > mostColumns,
})

/** The checks of one right, those of a place counted once, from outside to inside. */
export function checksOf(a: Permitted, right: string): Check[] {
  const seen = new Set<string>()
  return layers.flatMap((l) =>
    a.checks.filter((c) => {
      const key = `${c.where} ${c.path}:${c.line}`
      if (c.right !== right || c.where !== l.id || seen.has(key)) return false
      seen.add(key)
      return true
    }),
  )
}

/** What is missing of an action's checks, in words. */
export const sayHole = (a: Permitted): string =>
  a.hole && a.lacks ? `lacks ${a.lacks}, which most others of it ask for` : a.hole

/** The actions that ask for a right, or lack what is told, or all. */
export function narrowed(all: readonly Permitted[], right: string, hole: string): Permitted[] {
  return all.filter((a) => (!right || a.checks.some((c) => c.right === right)) && (!hole || a.hole === hole))
}

/** All of it in a sentence. */
export function sayRights(d: Allowed): string {
  const guarded = d.actions.filter((a) => a.checks.length > 0).length
  const listed = d.actions.length < d.all ? `; the first ${figure(d.actions.length)} are shown` : ''
  if (guarded === 0) return `${counted(d.all, 'route')}; no check of who may do something was found on the way of any.`
  return `${counted(d.all, 'route')}${listed}; ${counted(d.names.length, 'right')} asked for.`
}
