import { useEffect, useRef, useState } from 'react'
import { useSiblings } from '../api/queries'
import { isOpening, takeTyped } from '../frame/gate'
import { useWhere, type Where } from './place'

/** The place as a path; each step opens its siblings. */
export function PathBar({ name }: { name: string }) {
  const { where } = useWhere()
  const parts = where.at === '.' ? [] : where.at.split('/')
  const steps = [{ path: '.', name }, ...parts.map((p, i) => ({ path: parts.slice(0, i + 1).join('/'), name: p }))]
  // In the middle of a deep path the steps are folded into one.
  const shown = steps.length > 6 ? [...steps.slice(0, 2), null, ...steps.slice(-3)] : steps
  return (
    <nav className="path mono" aria-label="Place">
      {shown.map((s, i) => (
        <span key={s?.path ?? 'fold'} className="step">
          {i > 0 && <i aria-hidden="true">/</i>}
          {s ? (
            <Step step={s} here={s.path === where.at} where={where} />
          ) : (
            <Step step={{ path: steps[steps.length - 4]?.path ?? '.', name: '…' }} here={false} where={where} />
          )}
        </span>
      ))}
    </nav>
  )
}

const itemsOf = (box: HTMLElement | null) => [...(box?.querySelectorAll<HTMLElement>('[role=menuitem]') ?? [])]

/** Goes to the next item, after the one that has the focus, that starts with what was typed. */
function jump(box: HTMLElement | null, typed: string) {
  const list = itemsOf(box)
  const from = list.indexOf(document.activeElement as HTMLElement)
  const starts = (el: HTMLElement) => el.textContent?.toLowerCase().startsWith(typed.toLowerCase())
  const hit = [...list.slice(from + 1), ...list.slice(0, from + 1)].find(starts)
  hit?.focus()
}

function Step({ step, here, where }: { step: { path: string; name: string }; here: boolean; where: Where }) {
  const { go } = useWhere()
  const [open, setOpen] = useState(false)
  const box = useRef<HTMLSpanElement>(null)
  const siblings = useSiblings({ ...where, at: step.path }, open && step.path !== '.')
  useEffect(() => {
    if (!open) return
    const close = (e: Event) => {
      if (!box.current?.contains(e.target as Node)) setOpen(false)
    }
    document.addEventListener('pointerdown', close)
    return () => document.removeEventListener('pointerdown', close)
  }, [open])
  const there = siblings.isSuccess && open
  useEffect(() => {
    if (!there) return
    const kept = takeTyped('siblings')
    ;(itemsOf(box.current).find((el) => el.classList.contains('here')) ?? itemsOf(box.current)[0])?.focus()
    if (kept?.typed) jump(box.current, kept.typed)
  }, [there])
  const leave = (e: React.KeyboardEvent) => {
    if (e.key === 'Escape') {
      setOpen(false)
      box.current?.querySelector('button')?.focus()
      e.stopPropagation()
    }
    if (open && e.key.length === 1 && e.key !== ' ' && !e.ctrlKey && !e.metaKey && !e.altKey) {
      jump(box.current, e.key)
      e.preventDefault()
    }
    if (open && e.key === 'Tab') setOpen(false)
    if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
      const list = itemsOf(box.current)
      const i = list.indexOf(document.activeElement as HTMLElement)
      list[Math.max(0, Math.min(list.length - 1, i + (e.key === 'ArrowDown' ? 1 : -1)))]?.focus()
      e.preventDefault()
      e.stopPropagation()
    }
  }
  return (
    <span ref={box} className="stepbox" onKeyDown={leave}>
      <button
        type="button"
        className={here ? 'here' : ''}
        aria-current={here ? 'location' : undefined}
        onClick={() => go({ at: step.path })}
        title={step.path === '.' ? 'the whole codebase' : step.path}
      >
        {step.name}
      </button>
      {step.path !== '.' && (
        <button
          type="button"
          className="more"
          aria-label={`Beside ${step.name}`}
          aria-haspopup="menu"
          aria-expanded={open}
          onClick={() => {
            if (open) takeTyped('siblings')
            else isOpening('siblings')
            setOpen(!open)
          }}
        >
          ▾
        </button>
      )}
      {open && (
        <div className="menu" role="menu" aria-label={`Beside ${step.name}`}>
          {siblings.isPending && <p className="faint">Looking…</p>}
          {siblings.data?.map((s) => (
            <button
              key={s.path}
              type="button"
              role="menuitem"
              className={s.path === step.path ? 'here' : ''}
              onClick={() => {
                setOpen(false)
                go({ at: s.path, view: s.file ? 'code' : where.view === 'code' ? 'layout' : where.view })
              }}
            >
              {s.name}
              {s.file ? '' : '/'}
            </button>
          ))}
        </div>
      )}
    </span>
  )
}
