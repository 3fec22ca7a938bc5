// @vitest-environment jsdom
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Finding } from '../api/types'
import { drawn, settled } from '../testkit/hook'
import { desk } from '../testkit/steps'
import { useFindingSteps } from './findingSteps'

const server = vi.hoisted(() => ({ add: vi.fn(), change: vi.fn(), get: vi.fn() }))
vi.mock('../api/changes', () => ({
  useAddFinding: () => ({ mutateAsync: server.add }),
  useChangeFinding: () => ({ mutateAsync: server.change }),
}))
vi.mock('../api/client', () => ({ default: { GET: server.get }, answer: (x: unknown) => x }))

const finding = (more: Partial<Finding>) =>
  ({ id: 3, version: 1, title: 'Weigh in one place', text: '', deleted: false, ...more }) as Finding

describe('findings', () => {
  beforeEach(() => void vi.resetAllMocks())
  const steps = () => {
    const d = desk()
    return { d, f: drawn(useFindingSteps, d.tools).now() }
  }

  it('are recorded by whoever reads, and taken back while nobody worked on them', async () => {
    server.add.mockResolvedValue(finding({}))
    server.get.mockResolvedValue(finding({}))
    const { d, f } = steps()
    await f.add({ kind: 'improve', title: 'Weigh in one place', path: 'src' } as never)
    expect(server.add).toHaveBeenCalledWith(expect.objectContaining({ by: 'Mira', path: 'src' }))
    expect(d.history[0]?.name).toBe('Recorded: Weigh in one place')
    await d.history[0]?.back()
    expect(server.change).toHaveBeenCalledWith({ finding: finding({}), patch: { deleted: true }, by: 'Mira' })
    expect(d.last()).toBe('Taken back: Weigh in one place')
  })

  it('that somebody worked on since are not thrown away unasked', async () => {
    server.add.mockResolvedValue(finding({}))
    server.get.mockResolvedValue(finding({ version: 2, title: 'Weigh in one place, by the scale' }))
    const { d, f } = steps()
    await f.add({ kind: 'improve', title: 'x', path: 'src' } as never)
    await d.history[0]?.back()
    expect(server.change).not.toHaveBeenCalled()
    const said = d.said.at(-1)
    expect(said?.text).toContain('was changed since it was recorded')
    said?.offer?.run()
    await settled()
    expect(server.change).toHaveBeenCalledWith(expect.objectContaining({ patch: { deleted: true } }))
  })

  it('of several smells are one step, and those that came before a fault are kept', async () => {
    server.add.mockResolvedValueOnce(finding({ id: 1 })).mockRejectedValueOnce(new Error('The disk is full.'))
    const { d, f } = steps()
    await f.addAll(
      [
        { id: 'a', path: 'a' },
        { id: 'b', path: 'b' },
        { id: 'c', path: 'c' },
      ],
      9,
    )
    expect(server.add).toHaveBeenCalledTimes(2)
    expect(d.said).toEqual([{ text: 'The disk is full.', warn: true }])
    expect(d.history.map((h) => h.name)).toEqual(['Recorded: 1 finding'])
  })

  it('of several smells are taken back but for what was changed since', async () => {
    server.add.mockResolvedValueOnce(finding({ id: 1 })).mockResolvedValueOnce(finding({ id: 2 }))
    server.get.mockResolvedValueOnce(finding({ id: 1 })).mockResolvedValueOnce(finding({ id: 2, version: 5 }))
    const { d, f } = steps()
    await f.addAll(
      [
        { id: 'a', path: 'a' },
        { id: 'b', path: 'b' },
      ],
      9,
    )
    expect(d.last()).toBe('Recorded: 2 findings')
    await d.history[0]?.back()
    expect(server.change).toHaveBeenCalledTimes(1)
    expect(d.said.at(-1)).toEqual({ text: 'Taken back: 1 finding; 1 changed since and left', warn: true })
  })

  it('are changed field by field, and taken back so', async () => {
    server.change.mockResolvedValue(finding({ version: 2, title: 'New' }))
    server.get.mockResolvedValue(finding({ version: 2, title: 'New' }))
    const { d, f } = steps()
    await f.change(finding({ title: 'Old' }), { title: 'New' })
    expect(d.history[0]?.name).toBe('Changed title of “Old”')
    await d.history[0]?.back()
    expect(server.change).toHaveBeenLastCalledWith(expect.objectContaining({ patch: { title: 'Old' } }))
    expect(d.last()).toBe('Taken back: New')
  })

  it('that somebody changed in the same field since are left, and offered', async () => {
    server.change.mockResolvedValue(finding({ version: 2 }))
    server.get.mockResolvedValue(finding({ version: 3, title: 'Theirs', text: 'mine' }))
    const { d, f } = steps()
    await f.change(finding({ title: 'Old', text: '' }), { title: 'New', text: 'mine' })
    await d.history[0]?.back()
    expect(server.change).toHaveBeenLastCalledWith(expect.objectContaining({ patch: { text: '' } }))
    expect(d.last()).toBe('Somebody has changed title of “Theirs” since; that is left as it is.')
    d.said.at(-1)?.offer?.run()
    await settled()
    await settled()
    expect(server.change).toHaveBeenLastCalledWith(expect.objectContaining({ patch: { title: 'Old' } }))
  })

  it('that are deleted say so, and can be had back', async () => {
    server.change.mockResolvedValue(finding({ deleted: true }))
    server.get.mockResolvedValue(finding({ deleted: true, version: 2 }))
    const { d, f } = steps()
    await f.change(finding({}), { deleted: true })
    expect(d.said).toEqual([{ text: 'Deleted: Weigh in one place', undo: true }])
    await d.history[0]?.back()
    expect(server.change).toHaveBeenLastCalledWith(expect.objectContaining({ patch: { deleted: false } }))
  })
})
