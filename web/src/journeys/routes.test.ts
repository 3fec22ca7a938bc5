import { expect, it } from 'vitest'
import type { Route } from '../api/types'
import { narrow } from './routes'

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
  handler_line: 0,
})

it('routes are narrowed by all words, wherever they stand', () => {
  const list = [route('GET', '/lots', 'listLots'), route('POST', '/lots', 'addLot'), route('GET', '/seeds')]
  expect(narrow(list, 'LOTS get').map((r) => r.pattern)).toEqual(['/lots', '/seeds'])
  expect(narrow(list, 'addlot')).toEqual([list[1]])
  expect(narrow(list, '  ')).toHaveLength(3)
})
