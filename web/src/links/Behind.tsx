import { useState } from 'react'
import { useBetween } from '../api/queries'
import type { Bundle } from '../api/types'
import { Failed } from '../parts/Waiting'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { figure } from '../theme/ink'

/** How many lines are shown before the rest is asked for. */
const atFirst = 60

/** The lines that a bundle stands for. */
export function Behind({ bundle, onClose }: { bundle: Bundle; onClose: () => void }) {
  const { where } = useWhere()
  const links = useBetween(where, bundle)
  const [all, setAll] = useState(false)
  const list = links.data ?? []
  return (
    <section className="told">
      <h2>
        <span className="mono">{bundle.from}</span> needs <span className="mono">{bundle.to}</span>{' '}
        <button type="button" className="quiet" onClick={onClose}>
          Close
        </button>
      </h2>
      {links.isError && <Failed error={links.error} />}
      <ul className="places">
        {(all ? list : list.slice(0, atFirst)).map((l) => (
          <li key={l.from + l.line + l.to + l.kind}>
            <PlaceLink path={l.from} line={l.line} max={46} /> <span className="mono">{l.text}</span> <small>{l.kind}</small>
            {!l.sure && <small className="unsure"> not sure</small>}
          </li>
        ))}
      </ul>
      {!all && list.length > atFirst && (
        <button type="button" className="quiet" onClick={() => setAll(true)}>
          {atFirst} of {figure(list.length)}: show all
        </button>
      )}
    </section>
  )
}
