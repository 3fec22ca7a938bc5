import { expect, it } from 'vitest'
import type { Route } from '../api/types'
import { asksFirst, isAddress, narrow, saysOf, shownPattern } from './routes'

const route = (method: string, pattern: string, handler_name = ''): Route => ({
  method,
  pattern,
  path: 'counter/src/routes/lots.ts',
  line: 1,
  handler_path: '',
  handler_name,
  in_place: false,
  guards: [],
  name: '',
  answers: '',
  around: 0,
  checks: [],
  app: 'counter/src/app.ts',
  order: 0,
  fallback: false,
  handler_line: 0,
  calls: 0,
  in_tests: false,
  writes: [],
})

it('routes are narrowed by all words, wherever they stand', () => {
  const list = [route('GET', '/lots', 'listLots'), route('POST', '/lots', 'addLot'), route('GET', '/seeds')]
  expect(narrow(list, 'LOTS get').map((r) => r.pattern)).toEqual(['/lots', '/seeds'])
  expect(narrow(list, 'addlot')).toEqual([list[1]])
  expect(narrow(list, '  ')).toHaveLength(3)
})

it('an address is told from words, with a method before it or without', () => {
  expect(['/lots/7', 'GET /lots/7', ' post  /lots', '/'].every(isAddress)).toBe(true)
  expect(['lots', 'get lots', 'weigh /lots', ''].some(isAddress)).toBe(false)
})

it('of a typed address the sentence names what answers, and how many stand behind it', () => {
  const [one, other] = [route('GET', '/lots/:id'), route('ANY', '/*')]
  expect(saysOf([one, other], '/lots/7', '/lots/7', 'desk')).toBe(
    'GET /lots/:id answers /lots/7; one more fits and stands behind it.',
  )
  expect(saysOf([other], '/lots/7', '/lots/7', 'desk')).toBe('/* answers /lots/7, and nothing else fits.')
  expect(saysOf([], '/lots/7', '/lots/7', 'desk')).toBe('Nothing found in desk answers /lots/7.')
  expect(saysOf([one], '', '', 'desk')).toBe('1 route declared or answered in desk.')
})

it('what a resource asks first names those that ask nothing before anything else', () => {
  const x = {
    pattern: '/lots',
    in: '.',
    routes: [0, 1, 2],
    has: {},
    missing: [],
    purpose: '',
    odd: [],
    guards: ['signedIn'],
  }
  expect(asksFirst({ ...x, open: [2] })).toBe('1 of 3 asks nothing')
  expect(asksFirst({ ...x, open: [1, 2] })).toBe('2 of 3 ask nothing')
  expect(asksFirst({ ...x, open: [] })).toBe('signedIn')
})

it.each([
  ['/lots/:id', '/lots/:id'],
  ['/lists/(?P<list_id>[^/]+)/members/(?P<role>\\w+)', '/lists/<list_id>/members/<role>'],
  ['/years/(?<year>(19|20)\\d\\d)/all', '/years/<year>/all'],
  ['/odd/(?P<a>\\))/b', '/odd/<a>/b'],
  ['/open/(?P<a>x', '/open/<a>'],
])('%s reads %s', (pattern, shown) => expect(shownPattern(pattern)).toBe(shown))
