/**
 * The words of a field that also stand in the address. The address follows a
 * moment later: what comes back from there was typed here and is older than
 * what stands in the field by now, unless somebody else has set it.
 */
export interface Words {
  words: string
  /** What was last heard from the address. */
  last: string
  /** What was typed and has not come back yet. */
  sent: readonly string[]
}

/** The field after words were typed. */
export const typed = (w: Words, words: string): Words => ({ ...w, words, sent: [...w.sent, words] })

/** The field after the address has told its words. */
export function heard(w: Words, value: string): Words {
  const at = w.sent.indexOf(value)
  if (at >= 0) return { ...w, last: value, sent: w.sent.slice(at + 1) }
  return { words: value, last: value, sent: [] }
}
