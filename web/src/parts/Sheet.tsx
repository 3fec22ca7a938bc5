import { useLayoutEffect, useRef, type ReactNode } from 'react'

/** A sheet laid over the page; Escape and a click beside it take it away. */
export function Sheet({
  title,
  onClose,
  onOpen,
  children,
  wide,
}: {
  title: string
  onClose: () => void
  /** Called once it is open: only then can something in it take the focus. */
  onOpen?: () => void
  children: ReactNode
  wide?: boolean
}) {
  const box = useRef<HTMLDialogElement>(null)
  const opened = useRef(onOpen)
  useLayoutEffect(() => {
    const d = box.current
    if (!d || d.open) return
    d.showModal()
    opened.current?.()
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
