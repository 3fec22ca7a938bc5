// @vitest-environment jsdom
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { drawn, settled } from '../testkit/hook'
import { desk } from '../testkit/steps'
import { useMarkSteps } from './markSteps'

const server = vi.hoisted(() => ({ mark: vi.fn(), undo: vi.fn() }))
vi.mock('../api/changes', () => ({
  useMarkRead: () => ({ mutateAsync: server.mark }),
  useUndoMarks: () => ({ mutateAsync: server.undo }),
}))

describe('read marks', () => {
  beforeEach(() => void vi.resetAllMocks())

  it.each([
    ['src/lot.go', true, { changed: 1, files: 1, step: 4 }, 'Marked as looked at: src/lot.go'],
    ['src', true, { changed: 12, files: 12, step: 5 }, 'Marked as looked at: 12 files below src'],
    ['.', false, { changed: 1200, files: 1300, step: 6 }, 'No longer marked as looked at: 1,200 files of the whole codebase'],
    ['src', true, { changed: 0, files: 12, step: 7 }, 'It was marked as looked at already.'],
    ['src', false, { changed: 0, files: 12, step: 8 }, 'There was no mark to take away.'],
  ])('of %s set to %s are told as they went', async (path, read, made, text) => {
    server.mark.mockResolvedValue(made)
    const d = desk()
    drawn(useMarkSteps, d.tools).now().mark(path, read)
    await settled()
    expect(server.mark).toHaveBeenCalledWith({ path, read, by: 'Mira' })
    expect(d.last()).toBe(text)
    expect(d.history).toHaveLength(made.changed > 0 ? 1 : 0)
    expect(d.said[0]?.undo ?? false).toBe(made.changed > 0)
  })

  it('are taken back by their step, and what others marked since is left', async () => {
    server.mark.mockResolvedValue({ changed: 3, files: 3, step: 9 })
    server.undo.mockResolvedValue({ back: 2, left: 1 })
    const d = desk()
    drawn(useMarkSteps, d.tools).now().mark('src', true)
    await settled()
    await d.history[0]?.back()
    expect(server.undo).toHaveBeenCalledWith({ step: 9, by: 'Mira' })
    expect(d.last()).toBe('Taken back: 2 marks are as before; 1 marked otherwise since were left alone')
  })

  it('that can not be set are said, and nothing can be taken back', async () => {
    server.mark.mockRejectedValue(new Error('The disk is full.'))
    const d = desk()
    drawn(useMarkSteps, d.tools).now().mark('src', true)
    await settled()
    expect(d.said).toEqual([{ text: 'The disk is full.', warn: true }])
    expect(d.history).toEqual([])
  })
})
