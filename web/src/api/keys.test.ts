import { QueryClient } from '@tanstack/react-query'
import { describe, expect, it } from 'vitest'
import { keys, touchedBy, type At } from './keys'

const at: At = { id: 3, survey: 7, at: 'desk/src' }

describe('keys of queries', () => {
  it('begin with their codebase and name, so that one change reaches all places of a view', async () => {
    const qc = new QueryClient()
    qc.setQueryData(keys.view('margin', at), 1)
    qc.setQueryData(keys.view('margin', { ...at, at: '.' }), 2)
    qc.setQueryData(keys.view('layout', at), 3)
    qc.setQueryData(keys.view('margin', { ...at, id: 4 }), 4)
    await qc.invalidateQueries({ queryKey: keys.named(3, 'margin') })
    const stale = qc
      .getQueryCache()
      .getAll()
      .filter((q) => q.state.isInvalidated)
      .map((q) => q.state.data)
    expect(stale.sort()).toEqual([1, 2])
  })

  it('tell apart what is asked for at one place', () => {
    const all = [
      keys.view('texts', at, { kind: 'text' }),
      keys.view('texts', at, { kind: 'setting' }),
      keys.view('texts', { ...at, survey: 8 }, { kind: 'text' }),
      keys.view('names', at, { kind: 'text' }),
      keys.of(3, 'texts', { kind: 'text' }),
    ]
    expect(new Set(all.map((k) => JSON.stringify(k))).size).toBe(all.length)
  })

  it('fetch nothing again that a change can not have changed', () => {
    expect(touchedBy('findings')).toEqual([])
    expect(touchedBy('marks')).toEqual(['layout', 'margin'])
    expect(touchedBy('marks')).not.toContain('code')
    expect(touchedBy('surveys')).toBeNull()
  })

  it('know of every view that is judged anew', () => {
    const judged = touchedBy('judged') ?? []
    for (const name of ['overview', 'weave', 'smells', 'rights', 'states', 'wiring', 'texts', 'shapes'] as const)
      expect(judged).toContain(name)
    expect(new Set(judged).size).toBe(judged.length)
    // What people record is put in place, not fetched.
    expect(judged).not.toContain('findings')
  })
})
