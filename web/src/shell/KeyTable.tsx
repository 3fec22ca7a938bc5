import { Button } from '@chakra-ui/react'
import { useState } from 'react'
import { useSetSettings } from '../api/changes'
import { useSettings } from '../api/queries'
import { keymap } from '../parts/keys'
import { actions } from './keys'

/** Every key of the interface, each of which can be changed or switched off. */
export function KeyTable() {
  const settings = useSettings().data
  const save = useSetSettings()
  const [clash, setClash] = useState('')
  if (!settings) return null
  const map = keymap(actions, settings.keys)
  const remap = (id: string, key: string) => {
    const other = key && actions.find((a) => a.id !== id && map[a.id] === key)
    setClash(other ? `“${key}” is taken by “${other.text}”.` : '')
    if (!other) save.mutate({ ...settings, keys: { ...settings.keys, [id]: key } })
  }
  return (
    <>
      <p className="faint">Click a key and press another to change it; Delete switches it off. They act outside fields only.</p>
      <label className="check">
        <input
          type="checkbox"
          checked={settings.single_keys}
          onChange={(e) => save.mutate({ ...settings, single_keys: e.target.checked })}
        />{' '}
        Single keys act
      </label>
      {clash && (
        <p role="alert" className="warn">
          {clash}
        </p>
      )}
      <dl>
        {actions.map((a) => (
          <div key={a.id}>
            <dt>
              <button
                type="button"
                className="kbd"
                aria-label={`Key for: ${a.text}`}
                onKeyDown={(e) => {
                  if (e.key === 'Tab' || e.key === 'Escape' || e.key === 'Enter' || e.key === 'Shift') return
                  e.preventDefault()
                  e.stopPropagation()
                  if (e.key === 'Delete') remap(a.id, '')
                  else if ((e.key.length === 1 || e.key === 'Backspace') && !e.ctrlKey && !e.metaKey && !e.altKey)
                    remap(a.id, e.key)
                }}
              >
                {map[a.id] || 'off'}
              </button>
            </dt>
            <dd>{a.text}</dd>
          </div>
        ))}
      </dl>
      <Button size="xs" variant="outline" onClick={() => save.mutate({ ...settings, keys: {} })}>
        As they came
      </Button>
      {save.isError && (
        <p role="alert" className="warn">
          {save.error.message}
        </p>
      )}
    </>
  )
}
