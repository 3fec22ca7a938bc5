import type { Say } from './said'

/** What each kind of step needs: whose and which review it is, how it speaks, and where it can be taken back. */
export interface Tools {
  id: number
  person: string
  say: Say
  push: (name: string, back: () => Promise<void>) => void
}

/** Says what went wrong. */
export const failed =
  (say: Say) =>
  (e: unknown): void =>
    say({ text: (e as Error).message, warn: true })
