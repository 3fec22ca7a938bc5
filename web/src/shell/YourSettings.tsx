import { useSetSettings } from '../api/changes'
import { useSettings } from '../api/queries'
import type { Settings } from '../api/types'

/** What a reader sets for themselves: name, editor, light or dark. */
export function YourSettings() {
  const settings = useSettings().data
  const save = useSetSettings()
  if (!settings) return null
  const put = (s: Partial<Settings>) => save.mutate({ ...settings, ...s })
  return (
    <>
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
      <label id="editor">
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
      {save.isError && (
        <p role="alert" className="warn">
          {save.error.message}
        </p>
      )}
    </>
  )
}
