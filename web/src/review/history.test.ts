import { expect, it } from 'vitest'
import { Problem } from '../api/client'
import { mayTryAgain } from './history'

it('what could not be sent can be taken back later; what is gone can not', () => {
  expect(mayTryAgain(new Problem(0, 'the server can not be reached'))).toBe(true)
  expect(mayTryAgain(new Problem(503, 'busy'))).toBe(true)
  expect(mayTryAgain(new Problem(404, 'there is no such finding'))).toBe(false)
})
