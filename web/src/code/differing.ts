import { Chunk } from '@codemirror/merge'
import { Text } from '@codemirror/state'
import { useContext, useMemo } from 'react'
import { useCode } from '../api/queries'
import type { Code as CodeData } from '../api/types'
import { BesideContext, useAddress, type Where } from '../place/place'

const none: readonly number[] = []

/** The lines of a text, from 1, that another one does not have as they are. */
export function differingLines(text: string, other: string): number[] {
  const a = Text.of(text.split('\n'))
  const b = Text.of(other.split('\n'))
  const out: number[] = []
  for (const c of Chunk.build(a, b)) {
    if (c.fromA === c.toA) continue
    const last = a.lineAt(Math.min(a.length, c.endA)).number
    for (let l = a.lineAt(c.fromA).number; l <= last; l++) out.push(l)
  }
  return out
}

/** The place on the other side, for whichever side this is drawn on; null where nothing stands beside. */
function otherSide(own: Where, drawn: Where | undefined) {
  if (!own.beside) return null
  return drawn ? { id: own.id, survey: own.survey, at: own.at } : own.beside
}

/** The lines that differ from the text that stands beside. */
export function useDifferingLines(c: CodeData): readonly number[] {
  const own = useAddress().where
  const drawn = useContext(BesideContext)?.where
  const other = otherSide(own, drawn)
  const text = useCode(other ?? own, other !== null).data?.text
  const against = other === null ? undefined : text
  return useMemo(() => (against ? differingLines(c.text, against) : none), [c.text, against])
}
