import type { Way } from '../api/types'
import { inOrder, toldOf } from './around'
import { done, lacks, unasked } from './way'

/** A text in backticks, whatever stands in it: the fence is longer than any run of them inside. */
export function fenced(text: string, least = 1): string {
  const longest = Math.max(0, ...[...text.matchAll(/`+/g)].map((m) => m[0].length))
  const fence = '`'.repeat(Math.max(least, longest + 1))
  if (least > 1) return `${fence}\n${text}\n${fence}`
  const pad = text.startsWith('`') || text.endsWith('`') ? ' ' : ''
  return `${fence}${pad}${text}${pad}${fence}`
}

/** Lines with their numbers, as they stand in the file. */
const numbered = (first: number, lines: readonly string[]): string =>
  lines.map((l, i) => `${String(first + i).padStart(5)}  ${l}`).join('\n')

/** The way of a route as Markdown, to be pasted where others read: stops in order with their lines, what it does, what it lacks. */
export function wayAsMarkdown(way: Way): string {
  const out = [`## ${fenced(`${way.method} ${way.pattern}`)}`]
  const { before, after, failing } = inOrder(way)
  const turns = (all: typeof before) =>
    all.map((t) => fenced(t.name) + (t.path ? ` (${fenced(`${t.path}:${t.line}`)})` : '')).join(', ')
  if (before.length > 0) out.push(`Before it answers, in this order: ${turns(before)}.`)
  if (way.checks.length > 0) out.push(`What is sent is looked at by ${way.checks.map((c) => fenced(c)).join(', ')}.`)
  if (after.length > 0) out.push(`After it: ${turns(after)}.`)
  if (failing.length > 0) out.push(`Where it fails: ${turns(failing)}.`)
  if (unasked(way)) out.push(unasked(way))
  if (way.skipped.length > 0) out.push(lacks(way.skipped))
  way.stops.forEach((s, i) => {
    const sure = s.tie === 'likely' ? ', may be: over an interface' : ''
    const role = s.role ? `, ${s.role}` : ''
    out.push(`${i + 1}. ${fenced(s.name || 'the top of the file')}${role}${sure}, ${fenced(`${s.path}:${s.at || s.line}`)}`)
    for (const t of toldOf(s))
      out.push(`   ${t.text}${t.lines.length ? `: ${t.lines.length > 1 ? 'lines' : 'line'} ${t.lines.join(', ')}` : ''}`)
    if (s.lines.length > 0) out.push(fenced(numbered(s.first, s.lines), 3).replace(/^/gm, '   '))
  })
  const does = way.operations.map((o) => `${done[o.what] ?? o.what} ${fenced(o.entity)}`)
  if (does.length > 0) out.push(`It ${does.join(', ')}.`)
  out.push(
    way.tests.length === 0
      ? 'No test was found that reaches it.'
      : `Tests that reach it: ${way.tests.map((t) => `${fenced(t.path)} (${t.kind})`).join(', ')}.`,
  )
  return `${out.join('\n\n')}\n`
}
