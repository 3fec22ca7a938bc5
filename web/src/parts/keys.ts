import { useEffect, useLayoutEffect, useRef } from 'react'
import { useSettings } from '../api/queries'
import { mayAct } from './gate'

/** Something a single key does, with the key it has unless it was remapped. */
export interface Key {
  id: string
  key: string
  text: string
}

/** What a key can do in every view. Views have their digits besides. */
export const everywhere: readonly Key[] = [
  { id: 'up', key: 'Backspace', text: 'One folder up' },
  { id: 'note', key: 'n', text: 'Write a remark' },
  { id: 'smell', key: 's', text: 'Make a finding of the chosen smell' },
  { id: 'read', key: 'l', text: 'Looked at: set or take away the mark' },
  { id: 'previous', key: ',', text: 'Previous smell or finding' },
  { id: 'next', key: '.', text: 'Next smell or finding' },
  { id: 'undo', key: 'z', text: 'Take back what you did last' },
  { id: 'margin', key: 'm', text: 'Fold the margin' },
  { id: 'legend', key: 'g', text: 'Show or hide the legend' },
  { id: 'search', key: '/', text: 'Search (also Ctrl or ⌘ K)' },
  { id: 'card', key: '?', text: 'This card' },
]

/** The key of each action, after what the reader set. */
export function keymap(actions: readonly Key[], own: Record<string, string> | undefined): Record<string, string> {
  return Object.fromEntries(actions.map((a) => [a.id, own?.[a.id] ?? a.key]))
}

const none: readonly Key[] = []

type Handlers = Record<string, (() => void) | undefined>

/** Runs an action's handler when its key is pressed; `more` are actions besides those of every view. */
export function useKeys(handlers: Handlers, more: readonly Key[] = none) {
  const settings = useSettings().data
  const latest = useRef({ handlers, settings, more })
  // Before anything is painted: a key that follows on what is seen must act by it.
  useLayoutEffect(() => {
    latest.current = { handlers, settings, more }
  })
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      const { handlers, settings, more } = latest.current
      if ((e.ctrlKey || e.metaKey) && !e.altKey && e.key.toLowerCase() === 'k') {
        if (handlers.search) {
          e.preventDefault()
          if (!document.querySelector('dialog[open]')) handlers.search()
        }
        return
      }
      const single = settings?.single_keys ?? true
      if (!single || e.ctrlKey || e.metaKey || e.altKey || e.isComposing || e.repeat || e.defaultPrevented || !mayAct(e.target))
        return
      const actions = [...more, ...everywhere]
      const map = keymap(actions, settings?.keys)
      const found = actions.find((a) => map[a.id] === e.key)
      const run = found && handlers[found.id]
      if (run) {
        e.preventDefault()
        run()
      }
    }
    document.addEventListener('keydown', press)
    return () => document.removeEventListener('keydown', press)
  }, [])
}
