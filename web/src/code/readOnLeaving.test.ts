// @vitest-environment jsdom
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import type { Code } from '../api/types'
import { drawn } from '../testkit/hook'
import { useReadOnLeaving } from './readOnLeaving'

const mutate = vi.hoisted(() => vi.fn())
vi.mock('../api/changes', () => ({ useMarkRead: () => ({ mutate }) }))

beforeEach(() => {
  vi.useFakeTimers()
  mutate.mockReset()
})
afterEach(() => void vi.useRealTimers())

const code = (path: string, lines: number, more: Partial<Code> = {}) =>
  ({ path, lines, text: 'x', read_mark: null, ...more }) as Code

it.each([
  ['is marked after as long as reading some of it takes', code('a', 100), 10_100, true],
  ['is not marked when it was only passed', code('a', 100), 9_900, false],
  ['asks no more of a long one than three quarters of a minute', code('a', 50_000), 45_100, true],
  ['is not marked twice', code('a', 10, { read_mark: { by: 'Ada' } as never }), 60_000, false],
  ['is not marked where nothing of it can be read', code('a', 10, { text: '' }), 60_000, false],
])('a file %s', (_, c, ms, marked) => {
  const r = drawn(({ c }: { c: Code }) => useReadOnLeaving(c, 7, 'Mira'), { c })
  vi.advanceTimersByTime(ms)
  r.again({ c: code('b', 10) })
  if (marked) expect(mutate).toHaveBeenCalledExactlyOnceWith({ path: 'a', read: true, by: 'Mira' })
  else expect(mutate).not.toHaveBeenCalled()
})
