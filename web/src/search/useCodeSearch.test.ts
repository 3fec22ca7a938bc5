// @vitest-environment jsdom
import { act } from 'react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { SearchLine } from '../api/types'
import { drawn } from '../testkit/hook'
import type { Wanted } from './stream'
import { useCodeSearch } from './useCodeSearch'

const asked = vi.hoisted(
  () => [] as { w: Wanted; signal: AbortSignal; line: (l: SearchLine) => void; fail: (e: Error) => void }[],
)
vi.mock('./stream', () => ({
  searchCode: (w: Wanted, signal: AbortSignal, line: (l: SearchLine) => void) =>
    new Promise<void>((_, fail) => asked.push({ w, signal, line, fail })),
}))

const wanted = (q: string): Wanted => ({ id: 1, survey: 0, at: '', q, regex: false, exact: false })
const after = (ms: number) => act(async () => vi.advanceTimersByTimeAsync(ms))

describe('the search in the code', () => {
  beforeEach(() => {
    vi.useFakeTimers()
    asked.length = 0
  })
  afterEach(() => void vi.useRealTimers())

  it('waits until somebody stops typing, and asks once', async () => {
    const s = drawn(useCodeSearch, wanted('lo'))
    s.again(wanted('lot'))
    s.again(wanted('lots'))
    await after(130)
    expect(asked.map((a) => a.w.q)).toEqual(['lots'])
    expect(s.now().files).toEqual([])
  })

  it('asks for nothing that is too short to mean anything', async () => {
    drawn(useCodeSearch, wanted(' l '))
    await after(500)
    expect(asked).toEqual([])
  })

  it('shows what came so far, and the end of it', async () => {
    const s = drawn(useCodeSearch, wanted('lots'))
    await after(130)
    asked[0]?.line({ path: 'a.go' } as SearchLine)
    asked[0]?.line({ path: 'b.go' } as SearchLine)
    await after(50)
    expect([s.now().files.length, s.now().end]).toEqual([2, null])
    asked[0]?.line({ done: true } as SearchLine)
    await after(50)
    expect(s.now().end).toEqual({ done: true })
  })

  it('gives up what is on its way when something else is asked, and shows none of it', async () => {
    const s = drawn(useCodeSearch, wanted('lots'))
    await after(130)
    s.again(wanted('beds'))
    expect(asked[0]?.signal.aborted).toBe(true)
    asked[0]?.line({ path: 'old.go' } as SearchLine)
    await after(300)
    expect(s.now().files).toEqual([])
    expect(asked.map((a) => a.w.q)).toEqual(['lots', 'beds'])
  })

  it('says what went wrong', async () => {
    const s = drawn(useCodeSearch, wanted('lots'))
    await after(130)
    asked[0]?.fail(new Error('That is no expression.'))
    await after(50)
    expect(s.now().problem).toBe('That is no expression.')
  })
})
