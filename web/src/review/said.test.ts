// @vitest-environment jsdom
import { act } from 'react'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { drawn } from '../testkit/hook'
import { useSaid, type Said } from './said'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

const after = (ms: number) => act(() => void vi.advanceTimersByTime(ms))

it.each<[string, Said, number]>([
  ['seven seconds', { text: 'Recorded' }, 7_000],
  ['twelve where it warns', { text: 'Left', warn: true }, 12_000],
  [
    'thirty where something can be done all the same',
    { text: 'Left', warn: true, offer: { text: 'x', run: () => undefined } },
    30_000,
  ],
])('what is said stands for %s', (_, what, ms) => {
  const s = drawn(() => useSaid(), 0)
  act(() => s.now().say(what))
  after(ms - 10)
  expect(s.now().said?.text).toBe(what.text)
  after(20)
  expect(s.now().said).toBeNull()
})

it('what is said next stands as long, whenever the one before was said', () => {
  const s = drawn(() => useSaid(), 0)
  act(() => s.now().say({ text: 'one' }))
  after(6_900)
  act(() => s.now().say({ text: 'two' }))
  after(6_900)
  expect(s.now().said?.text).toBe('two')
  after(200)
  expect(s.now().said).toBeNull()
})
