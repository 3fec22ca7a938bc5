import { Link } from 'react-router'
import { useMargin } from '../api/queries'
import type { Margin } from '../api/types'
import { PlaceActions } from '../place/PlaceActions'
import { narrowName, useNarrowing } from '../place/narrow'
import { stay, urlOf, useWhere } from '../place/place'
import { AllByHand } from '../review/AllByHand'
import { PurposeByHand } from '../review/ByHand'
import { useReview } from '../review/review'
import { counted, shortPath } from '../theme/ink'
import { Facts } from './Facts'
import { FindingsHere } from './FindingsHere'
import { History } from './History'
import { Jot } from './Jot'
import { ReachHere } from './ReachHere'
import { PastScore } from './PastScore'
import { Score } from './Score'
import { SmellsHere } from './SmellsHere'

/** The strip beside every view: what is known of the place, and where remarks are jotted. */
export function MarginStrip() {
  const { where, show } = useWhere()
  const subject = where.pick || where.at
  const narrowing = useNarrowing(where)
  const margin = useMargin({ ...where, at: subject })
  return (
    <aside className="margin" aria-label="Margin">
      <div className="marginscroll">
        {narrowing && (
          <p className="only">
            All views show only <b>{narrowName(where)}</b>: {counted(narrowing.files, 'file')}, {counted(narrowing.lines, 'line')}
            , {counted(narrowing.smells, 'smell')}.{' '}
            <button type="button" className="quiet" onClick={() => show({ feature: '', role: '' })}>
              Show all
            </button>
          </p>
        )}
        {margin.data ? (
          <About key={margin.data.path} m={margin.data} />
        ) : (
          margin.isError && <p className="warn">{margin.error.message}</p>
        )}
      </div>
      <Jot path={subject} line={where.pick ? 0 : where.line} end={where.pick ? 0 : where.end} survey={where.survey} />
    </aside>
  )
}

function About({ m }: { m: Margin }) {
  const { where } = useWhere()
  const review = useReview()
  return (
    <>
      <h2 className="mono" title={m.path}>
        {m.path === '.' ? m.name : shortPath(m.path, 36)}
      </h2>
      <p className="purpose">
        {m.purpose.text ? (
          <>
            {m.purpose.text}{' '}
            {m.purpose.source === 'author' ? (
              <Link to={urlOf({ ...stay(where), view: 'code', at: m.purpose.path, line: m.purpose.line })}>its authors</Link>
            ) : (
              <i>{m.purpose.source}</i>
            )}
          </>
        ) : (
          <i>Nothing says what it is for.</i>
        )}
      </p>
      {m.kind === 'folder' && <PurposeByHand path={m.path} text={m.purpose.text} lead={m.purpose.source === 'lead'} />}
      {m.kind !== 'file' && <AllByHand path={m.path} />}
      <Facts m={m} />
      <button type="button" className="quiet" onClick={() => review.mark(m.path, m.read < 1)}>
        {m.read >= 1 ? '● looked at' : m.read > 0 ? `◐ ${Math.round(m.read * 100)} % looked at` : '○ not looked at'} <kbd>l</kbd>
      </button>
      {where.view !== 'code' && <PlaceActions path={m.path} view={m.kind === 'file' ? 'code' : 'layout'} />}
      {m.history && <History h={m.history} />}
      {m.path !== '.' && (
        <ReachHere path={m.path} line={m.kind === 'file' && where.view === 'code' && !where.pick ? where.line : 0} />
      )}
      {m.score && <Score m={m} score={m.score} />}
      {m.score && m.path === '.' && <PastScore />}
      <SmellsHere m={m} />
      <FindingsHere m={m} />
    </>
  )
}
