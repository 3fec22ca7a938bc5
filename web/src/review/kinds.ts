import type { Kind, State } from '../api/types'

/** The kinds of findings with their sign and what they mean. */
export const kinds: { kind: Kind; sign: string; word: string; meaning: string; tone: string }[] = [
  { kind: 'redo', sign: 'x', word: 'Redo', meaning: 'write it anew', tone: 'strong' },
  { kind: 'fix', sign: '!', word: 'Fix', meaning: 'a fault', tone: 'strong' },
  { kind: 'improve', sign: '^', word: 'Improve', meaning: 'works, could be clearer', tone: 'plain' },
  { kind: 'taste', sign: '~', word: 'Taste', meaning: 'a preference, no obligation', tone: 'ochre' },
  { kind: 'ask', sign: '?', word: 'Ask', meaning: 'the reason is unknown', tone: 'ochre' },
  { kind: 'keep', sign: '+', word: 'Keep', meaning: 'good, do more of this', tone: 'moss' },
]

export const states: { state: State; word: string }[] = [
  { state: 'noted', word: 'noted' },
  { state: 'agreed', word: 'agreed' },
  { state: 'doing', word: 'doing' },
  { state: 'done', word: 'done' },
  { state: 'dropped', word: 'dropped' },
]

const fallback = { kind: 'improve' as Kind, sign: '^', word: 'Improve', meaning: 'works, could be clearer', tone: 'plain' }

export const kindOf = (k: Kind) => kinds.find((x) => x.kind === k) ?? fallback
