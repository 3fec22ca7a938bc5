import { Button } from '@chakra-ui/react'
import { useState } from 'react'

import type { Sheet } from '../api/types'
import { PlaceLink } from '../place/PlaceLink'
import { counted, figure } from '../theme/ink'
import { useByHand } from '../review/byHand'

type Suspect = Sheet['suspects'][number]

/** Folders that others may have written: asked about, left out in one step. */
export function Suspects({ all }: { all: Suspect[] }) {
  const hand = useByHand()
  const [kept, setKept] = useState<ReadonlySet<string>>(new Set())
  const [left, setLeft] = useState<string[]>([])
  const chosen = all.filter((x) => !kept.has(x.folder))
  const say = (folders: string[], gone: boolean) =>
    hand.set(
      folders.map((target) => ({ kind: 'origin', target, value: 'vendored', gone })),
      () => setLeft(gone ? [] : folders),
    )
  if (left.length > 0)
    return (
      <p role="status">
        {counted(left.length, 'folder')} left out of the judgement.{' '}
        <button type="button" className="asLink" onClick={() => say(left, true)}>
          take it back
        </button>
      </p>
    )
  if (all.length === 0) return null
  const share = chosen.reduce((a, x) => a + x.share, 0)
  const smells = chosen.reduce((a, x) => a + x.smells, 0)
  return (
    <section className="suspects" aria-label="Did others write this?">
      <h2>Did others write this?</h2>
      <p>
        {all.length === 1 ? 'This folder looks' : 'These folders look'} as if somebody else had written{' '}
        {all.length === 1 ? 'it' : 'them'}, but there is no proof.
      </p>
      <ul className="places">
        {all.map((x) => (
          <li key={x.folder}>
            <label>
              <input
                type="checkbox"
                checked={!kept.has(x.folder)}
                onChange={() =>
                  setKept((k) => new Set(k.has(x.folder) ? [...k].filter((f) => f !== x.folder) : [...k, x.folder]))
                }
              />{' '}
              <span className="hidden">leave out {x.folder}</span>
            </label>
            <PlaceLink path={x.folder} max={44} />{' '}
            <small>
              {x.why}: {counted(x.lines, 'line')}, {counted(x.smells, 'smell')}
            </small>
          </li>
        ))}
      </ul>
      <Button
        size="xs"
        variant="outline"
        disabled={chosen.length === 0}
        loading={hand.busy}
        onClick={() =>
          say(
            chosen.map((x) => x.folder),
            false,
          )
        }
      >
        Leave {counted(chosen.length, 'folder')} out of the judgement
      </Button>{' '}
      <small>
        {Math.round(100 * share)} % of the lines judged and {counted(smells, 'smell')} go with{' '}
        {chosen.length === 1 ? 'it' : 'them'}
        {hand.error && `; ${hand.error.message}`}
        {kept.size > 0 && `; ${figure(all.length - chosen.length)} kept`}
      </small>
    </section>
  )
}
