import { useState } from 'react'
import { useSetSettings } from '../api/changes'
import { useSettings } from '../api/queries'

/** The name under which remarks are recorded, asked for while there is none. */
export function useNameOnce() {
  const settings = useSettings().data
  const save = useSetSettings()
  const [name, setName] = useState('')
  /** Keeps what was typed for all that follows, and returns it; "" where there is a name already. */
  const keep = (): string => {
    const typed = name.trim()
    if (!settings || settings.person || !typed) return ''
    save.mutate({ ...settings, person: typed })
    return typed
  }
  return { asked: settings !== undefined && settings.person === '', name, setName, keep }
}

/** Asks for the name where the first remark is written. */
export function NameOnce({ name, shown }: { name: ReturnType<typeof useNameOnce>; shown: boolean }) {
  if (!name.asked || !shown) return null
  return (
    <label className="nameonce">
      from
      <input
        value={name.name}
        maxLength={100}
        placeholder="your name, asked once"
        onChange={(e) => name.setName(e.target.value)}
        onKeyDown={(e) => {
          if (e.key !== 'Enter') return
          e.preventDefault()
          document.getElementById('remark')?.focus()
        }}
      />
    </label>
  )
}
