import { useState } from 'react'

interface CopyTextProps {
  text: () => string
  label: string
  /** What the button says once it is done. */
  done: string
}

/** Puts a text on the clipboard; without one it is shown, to be copied by hand. */
export function CopyText({ text, label, done }: CopyTextProps) {
  const [copied, setCopied] = useState<'' | 'yes' | 'shown'>('')
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(text())
      setCopied('yes')
    } catch {
      setCopied('shown')
    }
  }
  return (
    <>
      <button type="button" className="quiet" onClick={() => void copy()}>
        {copied === 'yes' ? done : label}
      </button>
      {copied === 'shown' && (
        <textarea
          className="copylink mono"
          readOnly
          value={text()}
          aria-label={label}
          onFocus={(e) => e.currentTarget.select()}
          autoFocus
        />
      )}
    </>
  )
}
