// @vitest-environment jsdom
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Page } from '../api/types'
import { drawn } from '../testkit/hook'
import { desk } from '../testkit/steps'
import { usePageSteps } from './pageSteps'

const server = vi.hoisted(() => ({ add: vi.fn(), put: vi.fn() }))
vi.mock('../api/changes', () => ({
  useAddPage: () => ({ mutateAsync: server.add }),
  useChangePage: () => ({ mutateAsync: server.put }),
}))

const page = (version: number): Page =>
  ({
    id: 4,
    version,
    kind: 'guide',
    title: 'First days',
    text: 'Run it.',
    at: '2026-12-01T00:00:00Z',
    by: 'Odd',
  }) as unknown as Page

describe('pages that people read', () => {
  beforeEach(() => void vi.resetAllMocks())
  const steps = () => {
    const d = desk()
    return { d, p: drawn(usePageSteps, d.tools).now() }
  }

  it('that were written are taken away again', async () => {
    server.add.mockResolvedValue(page(1))
    const { d, p } = steps()
    await p.addPage('guide', 'First days', 'Run it.')
    expect(server.add).toHaveBeenCalledWith({ kind: 'guide', title: 'First days', text: 'Run it.', by: 'Mira' })
    await d.history[0]?.back()
    expect(server.put).toHaveBeenCalledWith({ page: 4, title: 'First days', text: 'Run it.', version: 1, gone: true, by: 'Mira' })
  })

  it('get their words back as they were, from the version that the step left', async () => {
    server.put.mockResolvedValueOnce(page(3))
    const { d, p } = steps()
    await p.changePage(page(2), { title: 'Second days', text: 'Stop it.' })
    expect(d.last()).toBe('Changed Second days')
    await d.history[0]?.back()
    expect(server.put).toHaveBeenLastCalledWith({ page: 4, title: 'First days', text: 'Run it.', version: 3, by: 'Mira' })
    expect(d.last()).toBe('Taken back: Changed Second days')
  })

  it('that were taken away say so and come back', async () => {
    server.put.mockResolvedValueOnce(page(3))
    const { d, p } = steps()
    await p.changePage(page(2), { title: 'First days', text: 'Run it.', gone: true })
    expect(d.last()).toBe('Took away First days')
    await d.history[0]?.back()
    expect(server.put).toHaveBeenLastCalledWith({ page: 4, title: 'First days', text: 'Run it.', version: 3, by: 'Mira' })
  })
})
