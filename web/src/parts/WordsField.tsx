import { useState } from 'react'
import { heard, typed, type Words } from './words'

/** A field for the words that a list is filtered by: they show at once, and go into the address as they are typed. */
export function WordsField({
  label,
  placeholder,
  value,
  onWords,
  wide,
}: {
  label: string
  placeholder: string
  value: string
  onWords: (words: string) => void
  wide?: boolean
}) {
  const [state, setState] = useState<Words>({ words: value, last: value, sent: [] })
  if (value !== state.last) setState(heard(state, value))
  return (
    <label className={wide ? 'grow' : undefined}>
      <span className="hidden">{label}</span>
      <input
        type="search"
        className={wide ? 'mono' : undefined}
        size={wide ? 44 : undefined}
        placeholder={placeholder}
        value={state.words}
        onChange={(e) => {
          setState(typed(state, e.target.value))
          onWords(e.target.value)
        }}
      />
    </label>
  )
}
