import type { Handed } from '../api/types'

const words: Record<string, string> = {
  singleton: 'for good',
  scoped: 'one request',
  request: 'one request',
  session: 'one session',
  transient: 'made anew',
}

/** How long what is handed out lives, each way once; "" where nothing tells. */
export const lifetimes = (h: Handed): string =>
  [...new Set(h.by.map((w) => words[w.lifetime] ?? w.lifetime))].filter(Boolean).join(', ')

/** By which calls or marks something is handed out, in a line. */
export const sayMix = (h: Handed): string =>
  h.by.map((w) => `${w.provides || 'what a function makes'} by ${w.how} in ${w.path}:${w.line}`).join('; ')
