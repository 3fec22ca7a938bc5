import { expect, test } from 'vitest'
import { inOrder, toldOf } from './around'

const put = (name: string, when: string) => ({ name, when, path: 'app.ts', line: 3, to_path: 'auth.ts', to_line: 8 })

test('what is put on routers runs before what the route names, each of them once', () => {
  const got = inOrder({
    around: [put('signedIn', 'before'), put('timed', 'around'), put('count', 'after'), put('say', 'error')],
    guards: ['signedIn', 'may'],
  })
  expect(got.before.map((t) => `${t.name} ${t.note}`.trim())).toEqual(['signedIn', 'timed around it', 'may at the route'])
  expect(got.after.map((t) => t.name)).toEqual(['count'])
  expect(got.failing.map((t) => t.name)).toEqual(['say'])
  expect(got.before[0]).toMatchObject({ path: 'app.ts', line: 3, to: 'auth.ts', toLine: 8 })
})

test('what is written in place is called so', () => {
  expect(inOrder({ around: [put('', 'before')], guards: [] }).before[0]?.name).toBe('a function written in place')
})

test('faults are told in words, those that are swallowed as something to look at', () => {
  const told = toldOf({
    bounds: 'transaction',
    faults: [
      { what: 'raise', name: 'Missing', line: 4 },
      { what: 'turn', name: 'Unweighed', line: 8 },
      { what: 'swallow', name: '', line: 12 },
      { what: 'raise', name: 'Missing', line: 17 },
    ],
  })
  expect(told.map((t) => t.text)).toEqual([
    'all of it holds or nothing: transaction',
    'raises Missing',
    'turns what failed into Unweighed',
    'swallows what fails',
  ])
  expect(told.map((t) => t.lines)).toEqual([[], [4, 17], [8], [12]])
  expect(told.map((t) => t.unsure)).toEqual([false, false, false, true])
  expect(toldOf({ bounds: '', faults: [] })).toEqual([])
})
