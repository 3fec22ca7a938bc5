import { useEffect, useRef, type ReactNode } from 'react'

/** A sheet laid over the page; Escape and a click beside it take it away. */
export function Sheet({
  title,
  onClose,
  children,
  wide,
}: {
  title: string
  onClose: () => void
  children: ReactNode
  wide?: boolean
}) {
  const box = useRef<HTMLDialogElement>(null)
  useEffect(() => {
    const d = box.current
    if (d && !d.open) d.showModal()
  }, [])
  return (
    <dialog
      ref={box}
      className={wide ? 'over wide' : 'over'}
      aria-label={title}
      onClose={onClose}
      onPointerDown={(e) => e.target === box.current && box.current?.close()}
    >
      <div className="overbody">{children}</div>
    </dialog>
  )
}
