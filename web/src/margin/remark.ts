import type { Kind } from '../api/types'
import { kinds } from '../review/kinds'

export interface Remark {
  kind: Kind
  title: string
  /** Whether the words themselves name the kind. */
  named: boolean
}

/**
 * Reads one line: a sign followed by a space, or a kind's word and a colon,
 * says how it is meant; without either it is as given by fallback.
 */
export function readRemark(line: string, fallback: Kind = 'improve'): Remark {
  const text = line.trim().replace(/\s+/g, ' ')
  const sign = kinds.find((k) => text.startsWith(`${k.sign} `))
  if (sign) return { kind: sign.kind, title: text.slice(2).trim(), named: true }
  const word = kinds.find((k) => text.toLowerCase().startsWith(`${k.word.toLowerCase()}:`))
  if (word) return { kind: word.kind, title: text.slice(word.word.length + 1).trim(), named: true }
  return { kind: fallback, title: text, named: false }
}

export interface Ask {
  sign: '@' | '#'
  word: string
  start: number
}

/**
 * What is being typed behind "@" or "#" at the cursor, for the completion;
 * null inside backticks, within a word, or when there is none.
 */
export function asking(text: string, cursor: number): Ask | null {
  const before = text.slice(0, cursor)
  if ((before.split('`').length - 1) % 2 === 1) return null
  const m = /(^|\s)([@#])([\p{L}\p{N}_. -]{0,30})$/u.exec(before)
  if (!m) return null
  const word = m[3] ?? ''
  if (word.includes('  ') || word.startsWith(' ') || word.split(' ').length > 2) return null
  return { sign: m[2] as '@' | '#', word, start: before.length - word.length - 1 }
}
