import { act, createElement, useEffect } from 'react'
import { createRoot } from 'react-dom/client'

Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: true })

/** A hook at work in a page: what it gave last, drawn anew with other arguments, taken away. */
export interface Drawn<A, T> {
  now: () => T
  again: (args: A) => void
  gone: () => void
  box: HTMLElement
}

/** Draws a hook that is called with these arguments. */
export function drawn<A, T>(use: (args: A) => T, first: A): Drawn<A, T> {
  const box = document.createElement('div')
  document.body.append(box)
  const root = createRoot(box)
  const held: { value?: T } = {}
  const Probe = ({ args }: { args: A }) => {
    const value = use(args)
    useEffect(() => void (held.value = value))
    return null
  }
  const again = (args: A) => act(() => root.render(createElement(Probe, { args })))
  again(first)
  return {
    now: () => held.value as T,
    again,
    gone: () => act(() => root.unmount()),
    box,
  }
}

/** Lets everything that was promised come true. */
export const settled = () => act(async () => void (await new Promise<void>((r) => queueMicrotask(() => queueMicrotask(r)))))
