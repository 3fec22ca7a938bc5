import type { Tools } from '../review/tools'
import type { Said } from '../review/said'

/** What a reader of these steps would see: what was said, and what can be taken back. */
export interface Desk {
  tools: Tools
  said: Said[]
  history: { name: string; back: () => Promise<void> }[]
  /** The last thing said, without what hangs on it. */
  last: () => string
}

export function desk(): Desk {
  const said: Said[] = []
  const history: Desk['history'] = []
  return {
    said,
    history,
    last: () => said.at(-1)?.text ?? '',
    tools: { id: 7, person: 'Mira', say: (s) => void said.push(s), push: (name, back) => void history.push({ name, back }) },
  }
}
