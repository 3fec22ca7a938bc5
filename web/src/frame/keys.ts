import { useEffect, useLayoutEffect, useRef } from 'react'
import { useSettings } from '../api/queries'
import { mayAct } from './gate'

/** Everything a key can do, with the key it has unless it was remapped. */
export const actions = [
  { id: 'overview', key: '1', text: 'Overview' },
  { id: 'layout', key: '2', text: 'Layout' },
  { id: 'weave', key: '3', text: 'Weave' },
  { id: 'dependencies', key: '4', text: 'Dependencies' },
  { id: 'journeys', key: '5', text: 'Journeys' },
  { id: 'findings', key: '9', text: 'Findings' },
  { id: 'code', key: '0', text: 'Code, when the place is a file' },
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
] as const

export type Action = (typeof actions)[number]['id']

/** The key of each action, after what the reader set. */
export function keymap(own: Record<string, string> | undefined): Record<Action, string> {
  return Object.fromEntries(actions.map((a) => [a.id, own?.[a.id] ?? a.key])) as Record<Action, string>
}

type Handlers = Partial<Record<Action, () => void>>

/** Runs an action's handler when its key is pressed. */
export function useKeys(handlers: Handlers) {
  const settings = useSettings().data
  const latest = useRef({ handlers, settings })
  // Before anything is painted: a key that follows on what is seen must act by it.
  useLayoutEffect(() => {
    latest.current = { handlers, settings }
  })
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      const { handlers, settings } = latest.current
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
      const map = keymap(settings?.keys)
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
