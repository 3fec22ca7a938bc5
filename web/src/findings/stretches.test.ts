import { expect, it } from 'vitest'
import { stretchesFor } from './stretches'

it('what is in sight is fetched, and the first stretch for its counts', () => {
  expect(stretchesFor(0, 20, 100)).toEqual([0])
  expect(stretchesFor(90, 110, 100)).toEqual([0, 1])
  expect(stretchesFor(730, 760, 100)).toEqual([0, 7])
})
