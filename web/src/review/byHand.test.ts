// @vitest-environment jsdom
import { act } from 'react'
import { describe, expect, it, vi } from 'vitest'
import { drawn, settled } from '../testkit/hook'
import { stepName, useByHand } from './byHand'
import type { ByHand } from './review'

const overrule = vi.hoisted(() => vi.fn())
vi.mock('./review', () => ({ useReview: () => ({ overrule }) }))

const one = (kind: string, target: string, value: string, gone = false) => ({ kind, target, value, gone }) as unknown as ByHand

describe('what is set by hand', () => {
  it.each([
    ['Nothing was set', []],
    ['Set by hand: role of src/lot.go is model', [one('role', 'src/lot.go', 'model')]],
    ['Set by hand: origin of 2 places is vendored', [one('origin', 'a', 'vendored'), one('origin', 'b', 'vendored')]],
    ['Taken away: role of src/lot.go', [one('role', 'src/lot.go', '', true)]],
    ['Set by hand: link of a.go → b.go', [one('link', 'a.go\tb.go', '')]],
    ['The rule long-file rests: they are tables', [one('rule', 'long-file', 'they are tables')]],
    ['The rule long-file counts again', [one('rule', 'long-file', '', true)]],
    ['On purpose: what lots lacks, nobody deletes a lot', [one('gap', 'lots', 'nobody deletes a lot')]],
    ['No longer on purpose: what lots lacks', [one('gap', 'lots', '', true)]],
    ['Put into the glossary: lot', [one('term', 'lot', 'what is sown')]],
    ['Taken out of the glossary: lot', [one('term', 'lot', '', true)]],
    ['Put into the glossary: lot', [one('instead', 'batch', 'lot')]],
  ])('is called “%s” in the history', (name, all) => expect(stepName(all)).toBe(name))

  it('is one step, and goes on when it is saved', async () => {
    overrule.mockResolvedValue(undefined)
    const then = vi.fn()
    const hand = drawn(() => useByHand(), 0)
    act(() => hand.now().set(one('role', 'a', 'view'), then))
    expect(then).not.toHaveBeenCalled()
    await settled()
    expect(overrule).toHaveBeenCalledWith('Set by hand: role of a is view', [one('role', 'a', 'view')])
    expect(then).toHaveBeenCalledOnce()
    expect(hand.now().busy).toBe(false)
  })

  it('stays where it was typed when it can not be saved', async () => {
    overrule.mockRejectedValue(new Error('The disk is full.'))
    const then = vi.fn()
    const hand = drawn(() => useByHand(), 0)
    act(() => hand.now().set([one('role', 'a', 'view')], then))
    await settled()
    expect(then).not.toHaveBeenCalled()
    expect(hand.now().error?.message).toBe('The disk is full.')
  })
})
