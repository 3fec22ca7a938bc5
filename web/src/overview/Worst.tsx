import { useState } from 'react'
import { useSmells } from '../api/queries'
import type { Sheet, Smell } from '../api/types'
import { Emphasised } from '../parts/Emphasised'
import { PlaceLink } from '../place/PlaceLink'
import { useNarrowing } from '../place/narrow'
import { useWhere } from '../place/place'
import { useRecording } from '../review/recording'
import { figure, inkStep } from '../theme/ink'
import { Places } from './Said'

/** The worst smells, each recorded from here; all of them one step away. */
export function Worst({ s }: { s: Sheet }) {
  const { where, query, show } = useWhere()
  const narrowing = useNarrowing(where)
  // The three worst of all may have nothing to do with what is picked.
  const all = query.get('smells') === 'all' || narrowing !== null
  const [count, setCount] = useState(50)
  const list = useSmells(where, where, count, all).data
  const shown = all && list ? list.smells.filter((x) => !x.silenced) : s.worst
  return (
    <>
      <ol className="worst">
        {shown.map((sm) => (
          <WorstItem key={sm.id} sm={sm} />
        ))}
      </ol>
      {!all && s.smells > s.worst.length && (
        <button type="button" className="quiet" onClick={() => show({ smells: 'all' })}>
          {figure(s.worst.length)} of {figure(s.smells)} smells: show all
        </button>
      )}
      {all && list && list.count > shown.length && (
        <button type="button" className="quiet" onClick={() => setCount((n) => Math.min(500, n + 150))}>
          {figure(shown.length)} of {figure(list.count)}
          {count < 500 ? ': show more' : '; look at a folder for the rest'}
        </button>
      )}
    </>
  )
}

function WorstItem({ sm }: { sm: Smell }) {
  const [open, setOpen] = useState(false)
  const { where } = useWhere()
  const { isRecorded, record } = useRecording(where.survey)
  return (
    <li>
      <span className={`ink k${inkStep(sm.strength)}`} title={`strength ${sm.strength.toFixed(2)} of 1`} />
      <div>
        <button type="button" className="asText" aria-expanded={open} onClick={() => setOpen(!open)}>
          <Emphasised text={sm.message} />
        </button>
        <small>
          <PlaceLink path={sm.path} line={sm.line ?? 0} max={46} />{' '}
          {/* One button throughout, so that the focus stays where it is. */}
          <button type="button" className="quiet" aria-disabled={isRecorded(sm)} onClick={() => record(sm)}>
            {isRecorded(sm) ? 'recorded' : 'record it'}
          </button>
        </small>
        {open && (
          <div className="why">
            <p>{sm.remedy}</p>
            <Places list={sm.evidence} first={6} />
          </div>
        )}
      </div>
    </li>
  )
}
