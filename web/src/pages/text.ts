/** The boxes of steps, as CommonMark's usual extension writes them. */
const step = /^(\s*(?:[-*+]|\d+[.)])\s+\[)([ xX])(\]\s)/

/** The text of a page with its step of a number, counted from 0, ticked off or not. */
export function ticked(text: string, number: number, done: boolean): string {
  let left = number
  let fenced = ''
  return text
    .split('\n')
    .map((line) => {
      const fence = /^\s*(`{3,}|~{3,})/.exec(line)?.[1] ?? ''
      if (fence && (!fenced || fence.startsWith(fenced))) fenced = fenced ? '' : fence
      if (fenced || !step.test(line) || left-- !== 0) return line
      return line.replace(step, (_, before: string, __: string, behind: string) => before + (done ? 'x' : ' ') + behind)
    })
    .join('\n')
}

/** The place of the codebase that a link of a page leads to; null where it leads elsewhere. */
export function linkedPlace(href: string): { at: string; line: number; end: number } | null {
  if (!href || /^[a-z][a-z0-9+.-]*:/i.test(href) || href.startsWith('/') || href.startsWith('#')) return null
  const [path = '', behind = ''] = href.split('#')
  const lines = /^L(\d+)(?:-L?(\d+))?$/.exec(behind)
  try {
    return { at: decodeURIComponent(path), line: Number(lines?.[1] ?? 0), end: Number(lines?.[2] ?? 0) }
  } catch {
    return null // it is written wrongly
  }
}
