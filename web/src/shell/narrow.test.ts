// @vitest-environment jsdom
import { act } from 'react'
import { expect, it, vi } from 'vitest'
import { drawn } from '../testkit/hook'
import { useNarrow } from './narrow'

it('says whether the page is narrow, and hears when that changes until it is left', () => {
  const heard = new Set<() => void>()
  const m = {
    matches: false,
    addEventListener: (_: string, f: () => void) => heard.add(f),
    removeEventListener: (_: string, f: () => void) => heard.delete(f),
  }
  vi.stubGlobal('matchMedia', () => m)
  const n = drawn(() => useNarrow(), 0)
  expect(n.now()).toBe(false)
  m.matches = true
  act(() => heard.forEach((f) => f()))
  expect(n.now()).toBe(true)
  n.gone()
  expect(heard.size).toBe(0)
})
