// @vitest-environment jsdom
import { act, createElement } from 'react'
import { createRoot } from 'react-dom/client'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { Waiting } from './Waiting'

Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: true })
beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

it('says nothing of a short wait, shows a longer one, and tells why of a long one', () => {
  const box = document.createElement('div')
  const root = createRoot(box)
  act(() => root.render(createElement(Waiting)))
  const after = (ms: number) => act(() => void vi.advanceTimersByTime(ms))
  after(290)
  expect(box.innerHTML).toBe('')
  after(20)
  expect(box.querySelector('[role="status"]')).not.toBeNull()
  expect(box.textContent).toBe('')
  after(1_300)
  expect(box.textContent).toMatch(/worked out/)
  act(() => root.unmount())
  expect(vi.getTimerCount()).toBe(0)
})
