import type { TextList, TextRow } from '../api/types'
import { counted, figure } from '../theme/ink'

/** The kinds of name that no compiler looks at. */
export const textKinds: readonly { id: TextRow['kind']; text: string; none: string }[] = [
  {
    id: 'text',
    text: 'texts',
    none: 'No catalogue of texts by language was found here. They are looked for in files named for a language, such as locales/en.json, messages_de.properties or po/nl.po.',
  },
  {
    id: 'setting',
    text: 'settings',
    none: 'No variable of the environment is read or given here.',
  },
  {
    id: 'route',
    text: 'addresses',
    none: 'No route here was given a name to ask for its address by.',
  },
]

/** What may be wrong with a name, as the filter says it for each kind. */
const wrongWords: Record<TextRow['kind'], Record<string, string>> = {
  text: {
    'held nowhere': 'in no catalogue',
    'missing in some': 'missing in a language',
    'not asked for': 'nothing found that asks for it',
    'held twice': 'twice in one catalogue',
  },
  setting: { 'held nowhere': 'no sample names it', 'not asked for': 'nothing found that reads it' },
  route: { 'held nowhere': 'no route has the name', 'held twice': 'of several routes' },
}

export const wrongText = (kind: TextRow['kind'], wrong: string): string => wrongWords[kind][wrong] ?? wrong

/** What is to be said of a name: what may be wrong with it, else nothing. */
export function sayWrong(r: TextRow): string {
  return r.wrong
    .map((w) => {
      if (w !== 'missing in some') return wrongText(r.kind, w)
      const named = r.missing.slice(0, 4).join(', ')
      return r.missing.length > 4 ? `missing in ${named} and ${figure(r.missing.length - 4)} more` : `missing in ${named}`
    })
    .join('; ')
}

/** What stands for a setting: what gives it a value, what it falls back to, or that it must be set. */
export function sayValue(r: TextRow): string {
  const given = r.held[0]?.value
  if (r.kind !== 'setting') return given ?? ''
  if (r.default) return `else ${r.default}`
  if (r.must) return 'must be set'
  return ''
}

/** The catalogues of a place in a sentence. */
export function saySet(s: TextList['sets'][number]): string {
  const told = s.told
    ? `${figure(s.asked)} of them asked for by their whole name`
    : `only ${figure(s.asked)} asked for in a way that is known, so that nothing is said of the rest`
  return `${counted(s.keys, 'text')} in ${counted(s.tongues.length, 'language')}, ${told}`
}

/** Which share of its texts a language has, in whole percent: 100 only where none is missing. */
export const shareOf = (has: number, all: number): number =>
  all === 0 ? 0 : has >= all ? 100 : Math.min(99, Math.round((100 * has) / all))
