import { describe, expect, it } from 'vitest'
import type { Way } from '../api/types'
import { fenced, wayAsMarkdown } from './handOut'

const way: Way = {
  method: 'PUT',
  pattern: '/api/requests/:id',
  guards: ['signedIn', 'may'],
  around: [
    { name: 'signedIn', when: 'before', path: 'counter/src/app.ts', line: 4, to_path: '', to_line: 0 },
    { name: '', when: 'error', path: 'counter/src/app.ts', line: 9, to_path: '', to_line: 0 },
  ],
  checks: ['validate'],
  guarded: 4,
  beside: 5,
  broken: '',
  stops: [
    {
      path: 'counter/src/handlers/requests.ts',
      name: 'changeRequest',
      line: 22,
      role: 'handler',
      tie: 'sure',
      at: 24,
      first: 22,
      lines: ['a', 'b'],
      bounds: 'Transactional',
      faults: [{ what: 'swallow', name: '', line: 30 }],
    },
    {
      path: 'counter/src/data/requests.ts',
      name: 'updateRequest',
      line: 18,
      role: 'data access',
      tie: 'likely',
      at: 0,
      first: 0,
      lines: [],
      bounds: '',
      faults: [],
    },
  ],
  others: 0,
  skipped: ['schema'],
  operations: [{ entity: 'requests', what: 'update', path: 'counter/src/data/requests.ts', line: 19 }],
  ends: [],
  tests: [{ path: 'counter/src/logic/requests.test.ts', kind: 'unit', distance: 1 }],
}

describe('a way handed out as Markdown', () => {
  it('has its stops in order, what it does, lacks and asks, and its tests', () => {
    const text = wayAsMarkdown(way)
    const at = [
      '## `PUT /api/requests/:id`',
      'Before it answers, in this order: `signedIn` (`counter/src/app.ts:4`), `may`.',
      'What is sent is looked at by `validate`.',
      'Where it fails: `a function written in place`',
      'Most routes beside it come through a check of what comes in; this one does not.',
      '1. `changeRequest`, handler, `counter/src/handlers/requests.ts:24`',
      'all of it holds or nothing: Transactional',
      'swallows what fails: line 30',
      '      22  a',
      '2. `updateRequest`, data access, may be: over an interface, `counter/src/data/requests.ts:18`',
      'It changes `requests`.',
      'Tests that reach it: `counter/src/logic/requests.test.ts` (unit).',
    ].map((part) => text.indexOf(part))
    expect(at.every((x, i) => x >= 0 && (i === 0 || x > (at[i - 1] ?? 0)))).toBe(true)
  })

  it('says that no test was found, and nothing of what is not there', () => {
    const bare = wayAsMarkdown({
      ...way,
      guards: [],
      around: [],
      checks: [],
      skipped: [],
      operations: [],
      tests: [],
      stops: [],
      guarded: 0,
    })
    expect(bare).toBe('## `PUT /api/requests/:id`\n\nNo test was found that reaches it.\n')
  })

  it('keeps what stands in the code from ending its fence', () => {
    expect(fenced('a`b')).toBe('``a`b``')
    expect(fenced('`')).toBe('`` ` ``')
    expect(fenced('```\n# evil', 3)).toBe('````\n```\n# evil\n````')
    const evil = wayAsMarkdown({
      ...way,
      stops: way.stops.slice(0, 1).map((s) => ({ ...s, name: '`![x](http://evil)`', lines: ['```', '# evil'] })),
    })
    expect(evil).toContain('`` `![x](http://evil)` ``')
    expect(evil).toContain('````')
  })
})
