import { expect, it } from 'vitest'
import type { Overrule } from '../api/types'
import { handSteps, stillMine } from './judgedSteps'

const by = (target: string, value: string): Overrule => ({ kind: 'origin', target, value, by: '' })

it('what is set so already is no step, and each step knows what was there before', () => {
  const before = [by('archive/lib', 'own'), by('press', 'vendored')]
  const steps = handSteps(before, [by('archive/lib', 'vendored'), by('press', 'vendored'), by('shared', 'data')])
  expect(steps.map((s) => [s.target, s.was, s.set])).toEqual([
    ['archive/lib', 'own', 'vendored'],
    ['shared', null, 'data'],
  ])
})

it('taking away what nobody set is no step', () => {
  expect(handSteps([], [{ ...by('press', ''), gone: true }])).toEqual([])
  expect(handSteps([by('press', 'own')], [{ ...by('press', ''), gone: true }])).toHaveLength(1)
})

it('only what still is as it was set is taken back', () => {
  const steps = handSteps(
    [by('press', 'own')],
    [by('press', 'vendored'), by('shared', 'data'), { ...by('bench', ''), gone: true }],
  )
  const now = [by('press', 'generated'), by('shared', 'data')]
  const { mine, theirs } = stillMine(now, steps)
  expect(mine.map((s) => s.target)).toEqual(['shared'])
  expect(theirs.map((s) => s.target)).toEqual(['press'])
})
