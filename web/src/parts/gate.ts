import { useEffect } from 'react'

/**
 * Who has the keyboard. Single keys act only while the reader is in a view:
 * never in a field, behind a dialog or a menu, while something is opening, or
 * when the focus was lost. Whatever opens says so here before it is drawn; what
 * is typed from then on is kept for it, and handed over when it is there.
 */

interface Opening {
  name: string
  typed: string
  /** Enter was pressed: what is opened acts at once. */
  entered: boolean
  late: number
}

let opening: Opening | null = null

/** How long something may take to open before its keys are let go, in milliseconds. */
const patience = 10_000

/** Says that something is opening: keys are its own from now on. */
export function beginOpening(name: string) {
  if (opening) window.clearTimeout(opening.late)
  opening = { name, typed: '', entered: false, late: window.setTimeout(() => (opening = null), patience) }
}

/** What was typed while it opened; null when it was not opening (any more). */
export function takeTyped(name: string): { typed: string; entered: boolean } | null {
  if (opening?.name !== name) return null
  const { typed, entered, late } = opening
  window.clearTimeout(late)
  opening = null
  return { typed, entered }
}

/** Keeps a key for what is opening. It reports whether the key was taken. */
export function keep(e: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'altKey' | 'isComposing'>): boolean {
  if (!opening || e.ctrlKey || e.metaKey || e.altKey || e.isComposing) return false
  if (e.key.length === 1) opening.typed += e.key
  else if (e.key === 'Backspace') opening.typed = opening.typed.slice(0, -1)
  else if (e.key === 'Enter') opening.entered = true
  else if (e.key === 'Escape') {
    window.clearTimeout(opening.late)
    opening = null
    return false // what is opening is closed by it as well
  }
  return true
}

/** Whether typing goes into a field, where single keys must not act. */
export function inField(t: EventTarget | null): boolean {
  const e = t as HTMLElement | null
  return !!e?.closest?.('input, textarea, select, [contenteditable=true], [role=textbox]')
}

const above = 'dialog[open], [role=dialog], [role=alertdialog], [role=menu], [role=listbox].offers'

/** Whether a single key that is pressed on an element may act on the view. */
export function mayAct(target: EventTarget | null): boolean {
  if (opening || inField(target) || document.querySelector(above)) return false
  const e = target as HTMLElement | null
  return redrawn(target) || (!e?.closest?.('.editor') && !!e?.closest?.(inside))
}

const inside = '#view, .margin, .frame > header, .frame > nav'

/** What had the focus last, and whether that was where single keys act. */
let last: { on: Element; acts: boolean } | null = null

/** Notes what takes the focus. */
export function tookFocus(on: Element) {
  last = { on, acts: !!on.closest(inside) && !on.closest('.editor') && !inField(on) }
}

/**
 * Whether the focus was lost only because what had it was drawn anew, as when
 * another place is shown: nobody went elsewhere, and whoever goes on typing
 * means the view. Until it takes the focus again keys act as if it had it.
 */
function redrawn(target: EventTarget | null): boolean {
  return target === document.body && !!last?.acts && !last.on.isConnected
}

/** Puts the focus into the view, and into the list or drawing that takes it, unless somebody has it already. */
export function enterView() {
  const view = document.getElementById('view')
  if (view && (lost() || document.activeElement === view) && !opening)
    (view.querySelector<HTMLElement>('[data-focus]') ?? view).focus({ preventScroll: true })
}

/** Gives a list or a drawing the focus of its view once it is there: rows may come late. */
export function useEntering(takes: boolean | undefined) {
  useEffect(() => {
    if (takes) enterView()
  }, [takes])
}

const lost = () => !document.activeElement || document.activeElement === document.body

/** After so long without a key a lost focus goes back to the view, in milliseconds. */
const pause = 700

/**
 * Watches over the keyboard for a page: keeps what is typed while something
 * opens, and gives a lost focus back to the view once nobody is typing.
 */
export function useGate() {
  useEffect(() => {
    let back = 0
    const wait = () => {
      window.clearTimeout(back)
      back = window.setTimeout(() => {
        if (lost() && !document.querySelector(above)) enterView()
      }, pause)
    }
    const press = (e: KeyboardEvent) => {
      if (keep(e)) {
        e.preventDefault()
        e.stopPropagation()
      }
      if (lost()) wait() // somebody types into nothing: not yet
    }
    const took = (e: FocusEvent) => {
      if (e.target instanceof Element) tookFocus(e.target)
    }
    document.addEventListener('focusin', took, true)
    document.addEventListener('keydown', press, true)
    document.addEventListener('focusout', wait)
    wait()
    return () => {
      window.clearTimeout(back)
      document.removeEventListener('focusin', took, true)
      document.removeEventListener('keydown', press, true)
      document.removeEventListener('focusout', wait)
    }
  }, [])
}
