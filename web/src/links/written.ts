/**
 * Tells a text that comes in from outside from one's own that comes back: what is written is handed up, and comes
 * back with a later drawing, when more may have been written already. Put in again, it would take the newest letters.
 */
export function returning() {
  let underway: string[] = []
  return {
    /** A text that was written here and handed up. */
    handedUp(text: string) {
      underway.push(text)
    },
    /** Whether a text that is handed down is one that was written here. Those handed up before it will not come any more. */
    isOwn(text: string) {
      const at = underway.indexOf(text)
      underway = at < 0 ? [] : underway.slice(at + 1)
      return at >= 0
    },
  }
}
