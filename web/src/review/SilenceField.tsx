import { useCallback, useState } from 'react'
import { beginOpening, takeTyped } from '../parts/gate'

/** Asks for the reason why a smell does not count. */
export function SilenceField({ onSilence, text = 'Dismiss it' }: { onSilence: (reason: string) => void; text?: string }) {
  const [open, setOpen] = useState(false)
  const [reason, setReason] = useState('')
  const attach = useCallback((field: HTMLInputElement | null) => {
    if (!field) return
    field.focus()
    setReason(takeTyped('silence')?.typed ?? '')
  }, [])
  if (!open)
    return (
      <button
        type="button"
        className="quiet"
        onClick={() => {
          beginOpening('silence')
          setOpen(true)
        }}
      >
        {text}
      </button>
    )
  return (
    <form
      className="inline"
      onSubmit={(e) => {
        e.preventDefault()
        if (!reason.trim()) return
        setOpen(false)
        document.getElementById('view')?.focus({ preventScroll: true })
        onSilence(reason.trim())
      }}
    >
      <input
        ref={attach}
        aria-label="Reason for dismissing"
        placeholder="Why does it not count?"
        value={reason}
        maxLength={300}
        onChange={(e) => setReason(e.target.value)}
      />
    </form>
  )
}
