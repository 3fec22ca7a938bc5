// @vitest-environment jsdom
import type { KeyboardEvent } from 'react'
import { describe, expect, it, vi } from 'vitest'
import { drawn } from '../../testkit/hook'
import type { LedgerProps } from './column'
import { useRoving } from './roving'

interface Row {
  id: string
  of: string
  open?: boolean
}
const rows: Row[] = [
  { id: 'src', of: '', open: true },
  { id: 'src/lot.go', of: 'src' },
  { id: 'src/bed.go', of: 'src' },
  { id: 'docs', of: '', open: false },
]

function ledger(more: Partial<LedgerProps<Row>> = {}, at = 0) {
  const picked: string[] = []
  const box = { current: document.createElement('div') }
  document.body.append(box.current)
  const p = {
    label: 'x',
    columns: [],
    rows,
    idOf: (r: Row) => r.id,
    picked: '',
    onPick: (id: string) => void picked.push(id),
    ...more,
  } as LedgerProps<Row>
  const r = drawn((args: { at: number }) => useRoving({ p, rows, at: args.at, box, scrollTo: () => undefined }), { at })
  const press = (key: string, target: HTMLElement = box.current, also: Partial<KeyboardEvent> = {}) => {
    const e = { key, target, defaultPrevented: false, preventDefault: vi.fn(), ...also } as unknown as KeyboardEvent
    r.now()(e)
    return e
  }
  return { picked, press, again: r.again, box: box.current }
}

describe('the keys of a list', () => {
  it('go on from each other, though the address follows later', () => {
    const l = ledger()
    l.press('ArrowDown')
    l.press('ArrowDown')
    l.press('ArrowUp')
    l.press('End')
    l.press('ArrowDown')
    expect(l.picked).toEqual(['src/lot.go', 'src/bed.go', 'src/lot.go', 'docs', 'docs'])
  })

  it('go on from what was picked elsewhere', () => {
    const l = ledger()
    l.again({ at: 2 })
    l.press('ArrowDown')
    expect(l.picked).toEqual(['docs'])
  })

  it('fold what holds others, and lead from the rest to what it lies in', () => {
    const onFold = vi.fn()
    const l = ledger({ tree: { depth: () => 0, open: (r) => r.open, onFold, parent: (r) => r.of } }, 2)
    l.press('ArrowLeft')
    expect([l.picked, onFold.mock.calls.length]).toEqual([['src'], 0])
    l.press('ArrowLeft')
    expect(onFold).toHaveBeenCalledExactlyOnceWith(rows[0])
    l.press('ArrowRight') // it is open already
    expect(onFold).toHaveBeenCalledOnce()
  })

  it('open a row, but not where a button in it has the focus', () => {
    const onOpen = vi.fn()
    const l = ledger({ onOpen }, 1)
    const button = document.createElement('button')
    l.box.append(button)
    l.press('Enter', button)
    expect(onOpen).not.toHaveBeenCalled()
    l.press('Enter')
    expect(onOpen).toHaveBeenCalledExactlyOnceWith(rows[1])
  })

  it('leave alone what is typed, what has another meaning and what a list took itself', () => {
    const onKey = vi.fn((e: KeyboardEvent) => e.key === 'x')
    const l = ledger({ onKey })
    const field = document.createElement('input')
    l.box.append(field)
    l.press('ArrowDown', field)
    l.press('ArrowDown', l.box, { ctrlKey: true })
    const taken = l.press('x')
    expect(l.picked).toEqual([])
    expect(taken.preventDefault).toHaveBeenCalledOnce()
    expect(l.press('q').preventDefault).not.toHaveBeenCalled()
  })
})
