import type { Convention, Vocabulary } from '../api/types'
import { figure } from '../theme/ink'

/** What the view shows of names. */
export const sides = [
  { id: '', text: 'words' },
  { id: 'cases', text: 'how they are written' },
  { id: 'verbs', text: 'verbs and promises' },
  { id: 'texts', text: 'asked for by name' },
  { id: 'glossary', text: 'glossary' },
] as const

/** The words of a list that is typed with commas, each once. */
export const wordsOf = (typed: string): string[] => [
  ...new Set(
    typed
      .split(',')
      .map((w) => w.trim().toLowerCase())
      .filter(Boolean),
  ),
]

const plural: Record<string, string> = {
  file: 'files',
  folder: 'folders',
  function: 'functions',
  method: 'methods',
  type: 'types',
  component: 'components',
  constant: 'constants',
  variable: 'variables',
  field: 'fields',
  namespace: 'namespaces',
  parameter: 'parameters',
  local: 'local names',
}

/** The kind of what is named, for so many of them. */
export const kindWord = (kind: string, n: number): string => (n === 1 ? kind : (plural[kind] ?? kind))

const share = (n: number, all: number): string => {
  const percent = Math.floor((100 * n) / all)
  return n < all && percent === 0 ? 'under 1 %' : `${percent} %`
}

/** A convention in a sentence: how many ways there are, and how many of each. */
export function conventionText(c: Convention): string {
  const kind = `${figure(c.count)} ${kindWord(c.kind, c.count)} in ${c.language}`
  const [first, ...rest] = c.cases
  if (!first) return kind
  if (rest.length === 0) return `${kind}: all ${first.case}.`
  const ways = c.cases.map((x) => `${figure(x.count)} ${x.case} (${share(x.count, c.count)})`)
  return `${kind}, written in ${figure(c.cases.length)} ways: ${ways.join(', ')}.`
}

/** A verb with what it promises, in a sentence; "" where it promises nothing that can be checked. */
export function promiseText(v: Vocabulary['verbs'][number]): string {
  if (!v.promise) return ''
  if (v.broken === 0) return 'each gives something back'
  return `${figure(v.broken)} of ${figure(v.count)} give nothing back`
}
