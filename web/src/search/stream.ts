import { Problem } from '../api/client'
import type { SearchLine } from '../api/types'

/** What is looked for in the code. */
export interface Wanted {
  id: number
  survey: number
  /** Below which place. */
  at: string
  q: string
  regex: boolean
  exact: boolean
}

/** Splits what comes in into whole lines; the rest waits for more. */
export function wholeLines(buffer: string): { lines: string[]; rest: string } {
  const parts = buffer.split('\n')
  const rest = parts.pop() ?? ''
  return { lines: parts.filter(Boolean), rest }
}

/** Searches the code and hands on each file's hits as they come in. */
export async function searchCode(w: Wanted, signal: AbortSignal, onLine: (l: SearchLine) => void): Promise<void> {
  const q = new URLSearchParams({ q: w.q, at: w.at })
  if (w.survey) q.set('survey', String(w.survey))
  if (w.regex) q.set('regex', '1')
  if (w.exact) q.set('case', '1')
  try {
    const r = await fetch(`/api/codebases/${w.id}/search?${q}`, { signal })
    if (!r.ok || !r.body) {
      const e = (await r.json().catch(() => ({}))) as { detail?: string }
      throw new Problem(r.status, e.detail ?? 'The search failed.')
    }
    const reader = r.body.pipeThrough(new TextDecoderStream()).getReader()
    let buffer = ''
    for (;;) {
      const { value, done } = await reader.read()
      if (done) return
      const { lines, rest } = wholeLines(buffer + value)
      buffer = rest
      for (const l of lines) onLine(JSON.parse(l) as SearchLine)
    }
  } catch (e) {
    if (!signal.aborted) throw e
  }
}
