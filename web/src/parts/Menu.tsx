import { useEffect, useRef, type ReactNode } from 'react'
import { beginOpening, takeTyped } from './gate'

export interface MenuItem {
  id: string
  text: ReactNode
  here?: boolean
  run: () => void
}

const itemsOf = (box: HTMLElement | null) => [...(box?.querySelectorAll<HTMLElement>('[role=menuitem]') ?? [])]

/** The item, after the one that has the focus, that starts with what was typed. */
export function startsWith<T>(list: readonly T[], from: number, typed: string, textOf: (t: T) => string): T | undefined {
  return [...list.slice(from + 1), ...list.slice(0, from + 1)].find((t) =>
    textOf(t).toLowerCase().startsWith(typed.toLowerCase()),
  )
}

function jump(box: HTMLElement | null, typed: string) {
  const list = itemsOf(box)
  startsWith(list, list.indexOf(document.activeElement as HTMLElement), typed, (el) => el.textContent ?? '')?.focus()
}

/** A button that opens a menu: arrows move, letters jump, Escape closes and gives the focus back. */
export function Menu({
  name,
  label,
  say,
  hint,
  className,
  items,
  waiting,
  open,
  onOpen,
}: {
  /** What is opening, for the keys typed meanwhile. */
  name: string
  label: ReactNode
  /** What the button is called by those who hear it, where the label does not say. */
  say?: string
  hint?: string
  className?: string
  items: readonly MenuItem[]
  waiting?: boolean
  open: boolean
  onOpen: (open: boolean) => void
}) {
  const box = useRef<HTMLSpanElement>(null)
  useEffect(() => {
    if (!open) return
    const close = (e: Event) => !box.current?.contains(e.target as Node) && onOpen(false)
    document.addEventListener('pointerdown', close)
    return () => document.removeEventListener('pointerdown', close)
  }, [open, onOpen])
  const there = open && !waiting
  useEffect(() => {
    if (!there) return
    const kept = takeTyped(name)
    ;(itemsOf(box.current).find((el) => el.classList.contains('here')) ?? itemsOf(box.current)[0])?.focus()
    if (kept?.typed) jump(box.current, kept.typed)
  }, [there, name])
  const press = (e: React.KeyboardEvent) => {
    if (!open) return
    if (e.key === 'Escape') {
      onOpen(false)
      box.current?.querySelector('button')?.focus()
      e.stopPropagation()
    }
    if (e.key === 'Tab') onOpen(false)
    if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
      const list = itemsOf(box.current)
      const i = list.indexOf(document.activeElement as HTMLElement)
      list[Math.max(0, Math.min(list.length - 1, i + (e.key === 'ArrowDown' ? 1 : -1)))]?.focus()
      e.preventDefault()
      e.stopPropagation()
    }
    if (e.key.length === 1 && e.key !== ' ' && !e.ctrlKey && !e.metaKey && !e.altKey) {
      jump(box.current, e.key)
      e.preventDefault()
    }
  }
  return (
    <span ref={box} className="menubox" onKeyDown={press}>
      <button
        type="button"
        className={className}
        title={hint}
        aria-label={say}
        aria-haspopup="menu"
        aria-expanded={open}
        onClick={() => {
          if (open) takeTyped(name)
          else beginOpening(name)
          onOpen(!open)
        }}
      >
        {label}
      </button>
      {open && (
        <div className="menu" role="menu" aria-label={say ?? hint}>
          {waiting && <p className="faint">Looking…</p>}
          {items.map((i) => (
            <button
              key={i.id}
              type="button"
              role="menuitem"
              className={i.here ? 'here' : ''}
              onClick={() => {
                onOpen(false)
                i.run()
              }}
            >
              {i.text}
            </button>
          ))}
        </div>
      )}
    </span>
  )
}
