import { expect, it } from 'vitest'
import { wholeLines } from './stream'

it('a stream is cut into whole lines', () => {
  expect(wholeLines('{"a":1}\n{"b"')).toEqual({ lines: ['{"a":1}'], rest: '{"b"' })
  expect(wholeLines('')).toEqual({ lines: [], rest: '' })
})
