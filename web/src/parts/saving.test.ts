// @vitest-environment jsdom
import { act } from 'react'
import { expect, it } from 'vitest'
import { drawn, settled } from '../testkit/hook'
import { useSaving } from './saving'

it('is busy until what is saved is saved, and a fault goes when it is tried again', async () => {
  const s = drawn(() => useSaving(), 0)
  let fail: (e: Error) => void = () => undefined
  act(() => s.now().run(new Promise((_, no) => (fail = no))))
  expect(s.now().busy).toBe(true)
  fail(new Error('The disk is full.'))
  await settled()
  expect([s.now().busy, s.now().error?.message]).toEqual([false, 'The disk is full.'])
  act(() => s.now().run(Promise.resolve()))
  expect(s.now().error).toBeNull()
  await settled()
  expect(s.now().busy).toBe(false)
})
