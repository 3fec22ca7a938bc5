import { expect, test, vi } from 'vitest'
import type { Finding } from '../api/types'
import { recorder } from './recording'

const smell = { id: 'new', was: ['old'], path: 'desk/a.ts' }
const having = (...smells: string[]) => smells

test('a key pressed twice records once, and again when the first was refused', async () => {
  let refuse: (e: Error) => void = () => undefined
  const add = vi.fn(() => new Promise<Finding>((_, no) => (refuse = no)))
  const sending = new Set<string>()
  const r = recorder({ add, recorded: [] }, 7, sending)
  r.record(smell)
  r.record(smell)
  // The page is drawn anew while it is on its way.
  recorder({ add, recorded: [] }, 7, sending).record(smell)
  expect(add).toHaveBeenCalledTimes(1)
  expect(add).toHaveBeenCalledWith({ kind: 'improve', title: '', path: 'desk/a.ts', smell: 'new', survey: 7 })
  refuse(new Error('no room'))
  await vi.waitFor(() => expect(sending.size).toBe(0))
  r.record(smell)
  expect(add).toHaveBeenCalledTimes(2)
})

test('a smell that was recorded under an earlier id is recorded', () => {
  const add = vi.fn()
  expect(recorder({ add, recorded: having('old') }, 0, new Set()).isRecorded(smell)).toBe(true)
  expect(recorder({ add, recorded: having('other', '') }, 0, new Set()).isRecorded(smell)).toBe(false)
  recorder({ add, recorded: having('new') }, 0, new Set()).record(smell)
  expect(add).not.toHaveBeenCalled()
})
