// @vitest-environment jsdom
import { expect, it, vi } from 'vitest'
import { drawn } from '../testkit/hook'
import { useWidth } from './width'

it('tells the width at once, whenever it changes, and of another element when one stands there', () => {
  const watched: { el: Element; tell: (px: number) => void; off: boolean }[] = []
  vi.stubGlobal(
    'ResizeObserver',
    class {
      constructor(readonly on: (e: unknown[]) => void) {}
      observe(el: Element) {
        watched.push({ el, tell: (px) => this.on([{ contentRect: { width: px } }]), off: false })
      }
      disconnect() {
        const last = watched.at(-1)
        if (last) last.off = true
      }
    },
  )
  const box = { current: document.createElement('div') as HTMLElement }
  Object.defineProperty(box.current, 'clientWidth', { value: 640 })
  const told: number[] = []
  const tell = (px: number) => void told.push(px)
  const w = drawn(({ anew }: { anew: number }) => useWidth(box, tell, anew), { anew: 1 })
  watched[0]?.tell(320)
  box.current = document.createElement('div')
  w.again({ anew: 2 })
  expect([watched.length, watched[0]?.off, watched[1]?.el === box.current]).toEqual([2, true, true])
  w.gone()
  expect(watched[1]?.off).toBe(true)
  expect(told).toEqual([640, 320, 0])
})
