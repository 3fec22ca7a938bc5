import type { Kind } from '../api/types'
import { kindOf } from './kinds'

/** The sign of a finding's kind. */
export function Sign({ kind }: { kind: Kind }) {
  const k = kindOf(kind)
  return (
    <b className={`sign ${k.tone}`} title={`${k.word}: ${k.meaning}`} role="img" aria-label={k.word}>
      {k.sign}
    </b>
  )
}
