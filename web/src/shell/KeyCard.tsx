import { Button } from '@chakra-ui/react'
import { useState } from 'react'
import { useSettings } from '../api/queries'
import { useSetSettings } from '../api/changes'
import type { Settings } from '../api/types'
import { Sheet } from '../parts/Sheet'
import { takeTyped } from '../parts/gate'
import { keymap } from '../parts/keys'
import { actions } from './keys'
import { views } from './views'

const elsewhere = [
  ['↑ ↓', 'move in every list and in the code'],
  ['Enter', 'open what is picked'],
  ['Esc', 'close, or leave a field'],
] as const

/** The complete card of keys, where they are also remapped, and the reader's other settings. */
export function KeyCard({ onClose }: { onClose: () => void }) {
  const settings = useSettings().data
  const save = useSetSettings()
  const [clash, setClash] = useState('')
  if (!settings) return null
  const map = keymap(actions, settings.keys)
  const put = (s: Partial<Settings>) => save.mutate({ ...settings, ...s })
  const remap = (id: string, key: string) => {
    const other = key && actions.find((a) => a.id !== id && map[a.id] === key)
    setClash(other ? `“${key}” is taken by “${other.text}”.` : '')
    if (!other) put({ keys: { ...settings.keys, [id]: key } })
  }
  return (
    <Sheet title="Keys and settings" onClose={onClose} onOpen={() => takeTyped('keys')}>
      <div className="keycard">
        <section>
          <h3>Keys</h3>
          <p className="faint">
            Click a key and press another to change it; Delete switches it off. They act outside fields only.
          </p>
          <label className="check">
            <input type="checkbox" checked={settings.single_keys} onChange={(e) => put({ single_keys: e.target.checked })} />{' '}
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
          <Button size="xs" variant="outline" onClick={() => put({ keys: {} })}>
            As they came
          </Button>
        </section>
        <section>
          <h3>You</h3>
          <label>
            Name under which remarks are recorded
            <input
              key={settings.person}
              defaultValue={settings.person}
              maxLength={100}
              onBlur={(e) => put({ person: e.target.value.trim() })}
            />
          </label>
          <label>
            Editor: an address with {'{path}'} and {'{line}'}
            <input
              key={settings.editor}
              defaultValue={settings.editor}
              maxLength={500}
              placeholder="editor://open?file={path}&line={line}"
              onBlur={(e) => put({ editor: e.target.value.trim() })}
            />
          </label>
          <h3>Sheet</h3>
          <label>
            Light or dark
            <select value={settings.theme} onChange={(e) => put({ theme: e.target.value as Settings['theme'] })}>
              <option value="auto">as the system</option>
              <option value="light">light</option>
              <option value="dark">dark</option>
            </select>
          </label>
          <h3>In lists and drawings</h3>
          <dl>
            {[...elsewhere, ...views.flatMap((v) => v.keys.map(([k, does]) => [k, `${v.title}: ${does}`] as const))].map(
              ([k, text]) => (
                <div key={text}>
                  <dt>
                    <span className="kbd fixed">{k}</span>
                  </dt>
                  <dd>{text}</dd>
                </div>
              ),
            )}
          </dl>
          {save.isError && (
            <p role="alert" className="warn">
              {save.error.message}
            </p>
          )}
        </section>
      </div>
    </Sheet>
  )
}
