// @vitest-environment jsdom
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { ScreenPicture } from '../api/types'
import { drawn } from '../testkit/hook'
import { desk } from '../testkit/steps'
import { usePictureSteps } from './pictureSteps'

const server = vi.hoisted(() => ({ add: vi.fn(), put: vi.fn(), get: vi.fn() }))
vi.mock('../api/changes', () => ({
  useAddPicture: () => ({ mutateAsync: server.add }),
  useChangePicture: () => ({ mutateAsync: server.put }),
}))
vi.mock('../api/client', () => ({ default: { GET: server.get }, answer: (x: unknown) => x }))

const picture = (version: number): ScreenPicture =>
  ({ id: 4, version, path: 'src/Desk.tsx', name: 'Desk', boxes: [{ x: 1 }] }) as unknown as ScreenPicture

describe('pictures of screens', () => {
  beforeEach(() => void vi.resetAllMocks())
  const steps = () => {
    const d = desk()
    return { d, p: drawn(usePictureSteps, d.tools).now() }
  }

  it('that were put to a part are taken away again', async () => {
    server.add.mockResolvedValue(picture(1))
    const { d, p } = steps()
    await p.addPicture('src/Desk.tsx', 'Desk', new Blob(['x']))
    expect(d.last()).toBe('A picture of Desk')
    await d.history[0]?.back()
    expect(server.get).not.toHaveBeenCalled()
    expect(server.put).toHaveBeenCalledWith({ picture: 4, boxes: [], version: 1, gone: true, by: 'Mira' })
  })

  it('get their boxes back as they were', async () => {
    server.put.mockResolvedValueOnce(picture(3))
    server.get.mockResolvedValue({ pictures: [picture(3)] })
    const { d, p } = steps()
    await p.changePicture(picture(2), [])
    await d.history[0]?.back()
    expect(server.put).toHaveBeenLastCalledWith({ picture: 4, boxes: [{ x: 1 }], version: 3, gone: false, by: 'Mira' })
    expect(d.last()).toBe('Taken back: Boxes in a picture of Desk')
  })

  it('that somebody changed since are left as they are', async () => {
    server.put.mockResolvedValueOnce(picture(3))
    server.get.mockResolvedValue({ pictures: [picture(6)] })
    const { d, p } = steps()
    await p.changePicture(picture(2), [])
    await d.history[0]?.back()
    expect(server.put).toHaveBeenCalledTimes(1)
    expect(d.said.at(-1)).toEqual({ text: 'Somebody has changed this picture since; it is left as it is.', warn: true })
  })

  it('that were taken away come back', async () => {
    server.put.mockResolvedValueOnce(picture(3))
    server.get.mockResolvedValue({ pictures: [] })
    const { d, p } = steps()
    await p.changePicture(picture(2), [], true)
    expect(d.last()).toBe('Took away a picture of Desk')
    await d.history[0]?.back()
    expect(server.put).toHaveBeenLastCalledWith(expect.objectContaining({ gone: false, version: 3 }))
  })
})
