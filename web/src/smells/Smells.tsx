import { useMemo, useState } from 'react'
import { useDesk } from '../api/queries'
import type { Desk, Smell } from '../api/types'
import { useKeys } from '../parts/keys'
import { Ledger } from '../parts/ledger/Ledger'
import { Failed, Waiting } from '../parts/Waiting'
import { flipped, useWhere } from '../place/place'
import { useRecording } from '../review/recording'
import { counted, figure } from '../theme/ink'
import { AboutRule } from './AboutRule'
import { askedFrom, firstCount, mostCount, stillShown } from './desk'
import { DeskFilters } from './DeskFilters'
import { DeskGroups } from './DeskGroups'
import { deskColumns } from './deskColumns'
import { MarkedBar } from './MarkedBar'
import { OneSmell } from './OneSmell'
import { Raise } from './Raise'
import './desk.css'

/** The desk where what was noticed is worked through: in groups, one by one or many at once. */
export default function Smells() {
  const { where, query } = useWhere()
  const asked = useMemo(() => askedFrom(query), [query])
  const [count, setCount] = useState(firstCount)
  const desk = useDesk(where, where, asked, count)
  if (desk.isError) return <Failed error={desk.error} />
  if (!desk.data) return <Waiting />
  const d = desk.data
  const none = d.groups.length === 0
  return (
    <section className="desk listview fills">
      <h1>Smells{where.at === '.' ? '' : ` in ${where.at}`}</h1>
      <DeskFilters asked={asked} />
      {none ? (
        <div className="empty">
          <p className="say">
            {asked.words ? 'No smell has these words.' : 'No rule is hit here: there is nothing to hold against it.'}
          </p>
        </div>
      ) : (
        <div className="deskparts">
          <DeskGroups d={d} asked={asked} />
          <div className="desklist">
            {d.rule && <AboutRule key={d.rule.slug} rule={d.rule} />}
            {!asked.key && where.at === '.' && d.raise.length > 0 && !asked.words && <Raise all={d.raise} />}
            <SmellList d={d} onMore={count < mostCount ? () => setCount(mostCount) : undefined} />
          </div>
        </div>
      )}
    </section>
  )
}

function SmellList({ d, onMore }: { d: Desk; onMore: (() => void) | undefined }) {
  const { where, query, show, pick } = useWhere()
  const { isRecorded, record } = useRecording(where.survey)
  const [picked, setPicked] = useState('')
  const [marks, setMarks] = useState<ReadonlySet<string>>(new Set())
  const open = query.get('smell') ?? ''
  const at = d.smells.findIndex((s) => s.id === (picked || open))
  const mark = (s: Smell) => setMarks((m) => new Set(flipped(m, s.id)))
  const go = (to: number) => {
    const s = d.smells[Math.max(0, Math.min(d.smells.length - 1, to))]
    if (s) choose(s)
  }
  const choose = (s: Smell) => {
    setPicked(s.id)
    pick({ pick: s.path, line: s.line ?? 0 })
  }
  const current = d.smells[at]
  useKeys({ next: () => go(at + 1), previous: () => go(at - 1), smell: () => current && record(current) })
  const marked = stillShown(marks, d.smells)
  const columns = deskColumns({ titles: d.titles, marks, isRecorded, onMark: mark, at: where.at })
  const asked = d.count + d.quiet
  return (
    <>
      <p className="faint" role="status">
        {counted(d.count, 'smell')}
        {d.quiet > 0 && `, and ${figure(d.quiet)} dismissed`}
        {d.smells.length < d.count && `; the ${figure(d.smells.length)} strongest are shown`}.{' '}
        {onMore && d.smells.length < asked && d.smells.length >= firstCount && (
          <button type="button" className="quiet" onClick={onMore}>
            show more
          </button>
        )}
        {!onMore && d.smells.length < d.count && 'Pick a group for the rest.'}
      </p>
      <MarkedBar
        marked={d.smells.filter((s) => marked.includes(s.id))}
        all={d.smells}
        onMarks={(ids) => setMarks(new Set(ids))}
      />
      <Ledger
        label="Smells; arrows move, Space marks, Enter opens"
        columns={columns}
        rows={d.smells}
        idOf={(s) => s.id}
        picked={current?.id ?? ''}
        onPick={(_, s) => choose(s)}
        onOpen={(s) => show({ smell: open === s.id ? '' : s.id })}
        sorted
        classOf={(s) => (s.silenced ? 'frow settled' : 'frow')}
        below={(s) => s.id === open && <OneSmell s={s} recorded={isRecorded(s)} onRecord={() => record(s)} />}
        onKey={(e, s) => {
          if (e.key !== ' ' || !s) return false
          mark(s)
          return true
        }}
        focus
      />
    </>
  )
}
