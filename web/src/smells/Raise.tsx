import type { Desk } from '../api/types'
import { Emphasised } from '../parts/Emphasised'
import { PlaceLink } from '../place/PlaceLink'

/** What would raise the score most, with the points that each brings by itself. */
export function Raise({ all }: { all: Desk['raise'] }) {
  return (
    <details className="raise">
      <summary>What would raise the score most: up to {all[0]?.gain.toFixed(1)} points by one mend</summary>
      <ol>
        {all.map((m) => (
          <li key={m.smells[0]}>
            <b className="r">+{m.gain.toFixed(2)}</b>
            <span>
              <Emphasised text={m.what} /> <PlaceLink path={m.path} max={40} />
            </span>
          </li>
        ))}
      </ol>
    </details>
  )
}
