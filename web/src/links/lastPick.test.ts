// @vitest-environment jsdom
import { act, createElement, useEffect } from 'react'
import { createRoot } from 'react-dom/client'
import { expect, it } from 'vitest'
import { useLastPick } from './lastPick'

Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: true })

it('a key goes on from what the key before it picked, though something older is drawn meanwhile', () => {
  const root = createRoot(document.createElement('div'))
  const held: { last?: ReturnType<typeof useLastPick> } = {}
  const Probe = ({ shown }: { shown: string }) => {
    const last = useLastPick(shown)
    useEffect(() => void (held.last = last))
    return null
  }
  const draw = (shown: string) => act(() => root.render(createElement(Probe, { shown })))
  draw('')
  held.last?.byKey('desk')
  held.last?.byKey('desk/src')
  draw('desk')
  expect(held.last?.now()).toBe('desk/src')
  draw('desk/src')
  draw('bench') // picked elsewhere
  expect(held.last?.now()).toBe('bench')
  held.last?.byKey('desk')
  held.last?.otherwise()
  draw('counter')
  expect(held.last?.now()).toBe('counter')
})
