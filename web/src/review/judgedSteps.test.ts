// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { act, createElement, useEffect } from 'react'
import { createRoot } from 'react-dom/client'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Overrule } from '../api/types'
import { settled } from '../testkit/hook'
import { desk } from '../testkit/steps'
import { useJudgedSteps } from './judgedSteps'

const server = vi.hoisted(() => ({
  silence: vi.fn(),
  overrule: vi.fn(),
  arrange: vi.fn(),
  brief: vi.fn(),
  charter: vi.fn(),
  get: vi.fn(),
}))
vi.mock('../api/changes', () => ({
  useSilence: () => ({ mutateAsync: server.silence }),
  useOverrule: () => ({ mutateAsync: server.overrule }),
  useArrange: () => ({ mutateAsync: server.arrange }),
  useSetBrief: () => ({ mutateAsync: server.brief }),
  useSaveCharter: () => ({ mutateAsync: server.charter }),
}))
vi.mock('../api/client', async (real) => ({ ...(await real<object>()), default: { GET: server.get }, answer: (x: unknown) => x }))

const { Problem } = await import('../api/client')

function steps() {
  const d = desk()
  const held: { f?: ReturnType<typeof useJudgedSteps> } = {}
  const Probe = () => {
    const f = useJudgedSteps(d.tools)
    useEffect(() => void (held.f = f))
    return null
  }
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  act(() =>
    createRoot(document.createElement('div')).render(createElement(QueryClientProvider, { client }, createElement(Probe))),
  )
  return { d, f: held.f as ReturnType<typeof useJudgedSteps> }
}

const role = (target: string, value: string): Overrule => ({ kind: 'role', target, value, by: 'Ada' }) as Overrule

describe('what is judged by', () => {
  beforeEach(() => void vi.resetAllMocks())

  it('silences smells, and puts back the reasons that stood before', async () => {
    server.silence.mockResolvedValue({})
    const { d, f } = steps()
    f.silence(
      [
        { id: 'a', message: '*lot.go* is long', silenced: null },
        { id: 'b', message: 'x', silenced: 'known' },
      ] as never,
      'on purpose',
    )
    await settled()
    expect(d.last()).toBe('Dismissed: 2 smells')
    await d.history[0]?.back()
    expect(server.silence).toHaveBeenLastCalledWith({
      all: [
        { smell: 'a', reason: '' },
        { smell: 'b', reason: 'known' },
      ],
      by: 'Mira',
    })
  })

  it('sets by hand only what is not so already', async () => {
    server.get.mockResolvedValue([role('a', 'logic')])
    const { d, f } = steps()
    await f.overrule('Set by hand', [role('a', 'logic')])
    expect(server.overrule).not.toHaveBeenCalled()
    expect(d.last()).toBe('It was set so already.')
    expect(d.history).toEqual([])
  })

  it('takes back what still stands as it was set, and leaves what others set since', async () => {
    server.get.mockResolvedValueOnce([role('a', 'model')])
    const { d, f } = steps()
    await f.overrule('Set two roles', [role('a', 'logic'), role('b', 'view')])
    expect(server.overrule).toHaveBeenCalledTimes(2)
    server.get.mockResolvedValueOnce([role('a', 'logic'), role('b', 'state')])
    await d.history[0]?.back()
    expect(server.overrule).toHaveBeenLastCalledWith({ kind: 'role', target: 'a', value: 'model', by: 'Mira', gone: false })
    expect(d.said.at(-1)).toEqual({ text: 'Taken back: Set two roles; somebody has set b otherwise since', warn: true })
  })

  it('takes away by hand what was set where nothing stood', async () => {
    server.get.mockResolvedValueOnce([])
    const { d, f } = steps()
    await f.overrule('Set a role', [role('b', 'view')])
    server.get.mockResolvedValueOnce([role('b', 'view')])
    await d.history[0]?.back()
    expect(server.overrule).toHaveBeenLastCalledWith({ kind: 'role', target: 'b', value: '', by: 'Mira', gone: true })
  })

  it('leaves a drawing that somebody arranged since', async () => {
    server.arrange.mockResolvedValue({})
    const { d, f } = steps()
    await f.arrange('src', ['a 1 2'], ['a 0 0'])
    server.get.mockResolvedValueOnce({ boxes: ['a 5 5'] })
    await d.history[0]?.back()
    expect(server.arrange).toHaveBeenCalledTimes(1)
    expect(d.said.at(-1)?.warn).toBe(true)
    server.get.mockResolvedValueOnce({ boxes: ['a 1 2'] })
    await d.history[0]?.back()
    expect(server.arrange).toHaveBeenLastCalledWith({ place: 'src', boxes: ['a 0 0'], by: 'Mira' })
  })

  it('takes a charter back only while nobody saved another', async () => {
    server.charter.mockResolvedValueOnce({ version: 5 }).mockRejectedValueOnce(new Problem(412, 'changed'))
    const { d, f } = steps()
    await f.setCharter('layers: []', '', 4)
    expect(server.charter).toHaveBeenCalledWith({ text: 'layers: []', version: 4, by: 'Mira' })
    await d.history[0]?.back()
    expect(server.charter).toHaveBeenLastCalledWith({ text: '', version: 5, by: 'Mira' })
    expect(d.said.at(-1)).toEqual({ text: 'Somebody has changed it since; it is left as it is: Saved the charter', warn: true })
  })

  it('throws on what is no quarrel of two', async () => {
    server.brief.mockResolvedValueOnce({ version: 2 }).mockRejectedValueOnce(new Problem(500, 'broken'))
    const { d, f } = steps()
    await f.setBrief({ about: 'a' } as never, { about: '' } as never, 1)
    await expect(d.history[0]?.back()).rejects.toThrow('broken')
  })
})
