import { everywhere, useKeys, type Key } from '../parts/keys'
import { views } from './views'

/** The views' digits, which open them. */
const digits: readonly Key[] = views.map((v) => ({
  id: v.id,
  key: v.digit,
  text: v.says.codebase ? v.title : `${v.title}, when the place is a file`,
}))

/** Every key there is, as the key card lists them. */
export const actions: readonly Key[] = [...digits, ...everywhere]

/** Runs what the keys of every view do; `look` opens the view with that id. */
export function useShellKeys(look: (view: string) => void, handlers: Record<string, () => void>) {
  useKeys({ ...handlers, ...Object.fromEntries(views.map((v) => [v.id, () => look(v.id)])) }, digits)
}
