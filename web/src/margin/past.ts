import type { PastScores } from '../api/types'
import { counted, figure } from '../theme/ink'

/** A month as it is read: March 2025. */
const month = (at: string) => new Date(at).toLocaleDateString('en-GB', { month: 'long', year: 'numeric', timeZone: 'UTC' })

/** How a score came about, in a sentence: from where to where, and where it changed most. */
export function sayPast(p: Pick<PastScores, 'state' | 'of' | 'scores'>): string {
  if (p.state === 'running') return `Looking at past revisions: ${figure(p.scores.length)} of ${p.of > 0 ? figure(p.of) : '…'}.`
  const told = p.scores.flatMap((s) => (s.legibility.total === null ? [] : [{ at: s.at, total: s.legibility.total }]))
  const first = told[0]
  const last = told[told.length - 1]
  if (!first || !last) return 'No past revision has code that is judged.'
  if (told.length === 1) return `One revision alone: ${Math.round(last.total)}.`
  const steps = told.slice(1).map((s, i) => ({ from: told[i], to: s, by: s.total - (told[i]?.total ?? s.total) }))
  const most = steps.reduce((a, b) => (Math.abs(b.by) > Math.abs(a.by) ? b : a))
  const change =
    Math.abs(most.by) < 1 || !most.from
      ? 'it hardly changed'
      : `it ${most.by > 0 ? 'rose' : 'fell'} most between ${month(most.from.at)} and ${month(most.to.at)}, by ${counted(Math.round(Math.abs(most.by)), 'point')}`
  return `From ${Math.round(first.total)} in ${month(first.at)} to ${Math.round(last.total)} in ${month(last.at)}, by today’s rules; ${change}.`
}

/** Points of a line through some figures, the lowest at the bottom and the highest at the top; at least ten points stand between. */
export function lineOf(figures: readonly number[], width: number, height: number): { x: number; y: number }[] {
  const edge = 5
  const low = Math.min(...figures)
  const high = Math.max(...figures, low + 10)
  const round = (v: number) => Math.round(v * 10) / 10
  return figures.map((v, i) => ({
    x: round(figures.length === 1 ? width / 2 : edge + (i * (width - 2 * edge)) / (figures.length - 1)),
    y: round(height - edge - ((v - low) / (high - low)) * (height - 2 * edge)),
  }))
}
