import { expect, test } from 'vitest'
import { lineOf, sayPast } from './past'

const score = (at: string, total: number | null) => ({
  revision: at,
  at: `${at}-04T00:00:00Z`,
  files: 1,
  lines: 1,
  smells: 1,
  legibility: { total, layout: total, boundaries: null, units: total, names: total, tests: null, judged_share: 1 },
})

test('where a score comes from and where it changed most is said', () => {
  const scores = [
    score('2024-01', null),
    score('2024-03', 82),
    score('2024-09', 80.6),
    score('2025-02', 71.2),
    score('2025-06', 74),
  ]
  expect(sayPast({ state: 'done', of: 5, scores })).toBe(
    'From 82 in March 2024 to 74 in June 2025, by today’s rules; it fell most between September 2024 and February 2025, by 9 points.',
  )
  expect(sayPast({ state: 'done', of: 2, scores: [score('2024-03', 82), score('2024-09', 82.4)] })).toContain('it hardly changed')
  expect(sayPast({ state: 'done', of: 1, scores: [score('2024-03', 82)] })).toBe('One revision alone: 82.')
  expect(sayPast({ state: 'done', of: 1, scores: [score('2024-03', null)] })).toContain('No past revision')
})

test('while it is looked at, how far it is', () => {
  expect(sayPast({ state: 'running', of: 12, scores: [score('2024-03', 82)] })).toBe('Looking at past revisions: 1 of 12.')
  expect(sayPast({ state: 'running', of: 0, scores: [] })).toBe('Looking at past revisions: 0 of ….')
})

test('a line runs from edge to edge, the highest on top, and small changes stay small', () => {
  expect(lineOf([50, 60], 100, 50)).toEqual([
    { x: 5, y: 45 },
    { x: 95, y: 5 },
  ])
  expect(lineOf([50, 51], 100, 50)[1]?.y).toBe(41)
  expect(lineOf([70], 100, 50)).toEqual([{ x: 50, y: 45 }])
  expect(lineOf([], 100, 50)).toEqual([])
})
