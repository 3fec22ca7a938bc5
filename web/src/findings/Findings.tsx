import { useEffect, useMemo, useState } from 'react'
import { useFinding } from '../api/queries'
import { useLocation } from 'react-router'
import { inField, beginOpening, takeTyped } from '../parts/gate'
import { useKeys } from '../parts/keys'
import { Ledger } from '../parts/ledger/Ledger'
import { Failed, Waiting } from '../parts/Waiting'
import { useWhere } from '../place/place'
import { useReview } from '../review/review'
import { counted, figure } from '../theme/ink'
import { columns } from './columns'
import { Editor } from './Editor'
import { FindingFilters } from './FindingFilters'
import { groupTitle, listingFrom, nextPosition, queryOf, startsGroup, type Grouping, type Row } from './list'
import { useStretches } from './stretches'
import './findings.css'

/** The team's list, in the order set, grouped and filtered as the URL says. */
export default function Findings() {
  const { where, query, show, pick } = useWhere()
  const review = useReview()
  const listing = useMemo(() => listingFrom(where, query), [where, query])
  const by = (listing.group || 'order') as Grouping
  const list = useStretches(where.id, listing)
  const [problem, setProblem] = useState('')
  const [chosen, setChosen] = useState('')
  const open = Number(query.get('open')) || 0
  // What was opened by its address is where the cursor stands until it is moved.
  const at = list.rows.findIndex((r) => (chosen ? r.id === chosen : open > 0 && r.f?.id === open))
  const choose = (i: number) => setChosen(list.rows[Math.max(0, Math.min(list.rows.length - 1, i))]?.id ?? '')
  useKeys({ next: () => choose(at + 1), previous: () => choose(at - 1) })
  const move = (row: Row, step: 1 | -1) => {
    const to = nextPosition(list.rows, row, step)
    if (by !== 'order' || to === null || !row.f) return
    setChosen(row.id)
    review.change(row.f, { position: to }).catch((e: Error) => setProblem(e.message))
  }
  const toggle = (row: Row) => {
    if (!row.f) return
    if (open !== row.f.id) beginOpening('finding')
    show({ open: open === row.f.id ? '' : String(row.f.id) })
  }
  const close = () => {
    show({ open: '' })
    document.querySelector<HTMLElement>('.findings [role=grid]')?.focus({ preventScroll: true })
  }
  const shown = useMemo(() => columns(by === 'order', move, toggle, list.rows.length, open), [by, list.rows, open]) // eslint-disable-line react-hooks/exhaustive-deps
  if (list.error) return <Failed error={list.error} />
  const head = list.head
  if (!head) return <Waiting />
  const narrowed = head.count < head.all
  return (
    <section className="findings listview fills">
      <h1>Findings{where.at === '.' ? '' : ` below ${where.at}`}</h1>
      <FindingFilters listing={listing} people={head.people} labels={head.labels} />
      <p className="faint exports">
        {narrowed ? `${figure(head.count)} of ${counted(head.all, 'finding')}` : counted(head.all, 'finding')}. Hand them out
        {narrowed && ' as they are shown'}:{' '}
        {(['md', 'csv'] as const).map((kind) => (
          <a key={kind} href={`/api/codebases/${where.id}/export/findings.${kind}?${queryOf(listing)}`} download>
            {kind === 'md' ? 'Markdown' : 'CSV'}
          </a>
        ))}
      </p>
      {problem && (
        <p role="alert" className="warn">
          {problem}
        </p>
      )}
      {head.all === 0 && (
        <div className="empty">
          <p className="say">Nothing is recorded yet.</p>
          <p>
            Press <kbd>n</kbd> at any place and write one line; or press <kbd>s</kbd> on a smell in the margin, and its evidence
            comes along.
          </p>
        </div>
      )}
      {head.all > 0 && head.count === 0 && <p className="faint">No finding fits this filter.</p>}
      {head.count > 0 && (
        <Ledger
          label="Findings; arrows move, Enter opens"
          columns={shown}
          rows={list.rows}
          idOf={(r) => r.id}
          picked={list.rows[at]?.id ?? ''}
          onPick={(id) => {
            setChosen(id)
            pick({ pick: '' })
          }}
          onOpen={toggle}
          sorted
          classOf={(r) => (r.f && (r.f.state === 'done' || r.f.state === 'dropped') ? 'frow settled' : 'frow')}
          heading={(r, before) => {
            const g = startsGroup(r, before) && by !== 'order' ? head.groups[r.group] : undefined
            return g ? (
              <h2 className="group">
                <span className={by === 'place' ? 'mono' : ''}>{groupTitle(by, g.key)}</span> <small>{figure(g.count)}</small>
              </h2>
            ) : null
          }}
          below={(r) => (r.f && r.f.id === open ? <Opened id={open} onClose={close} /> : null)}
          onKey={(e, r) => {
            if (!e.altKey || !r || (e.key !== 'ArrowDown' && e.key !== 'ArrowUp')) return false
            move(r, e.key === 'ArrowDown' ? 1 : -1)
            return true
          }}
          onSight={list.onSight}
          focus
        />
      )}
    </section>
  )
}

/** A finding opened in its place in the list. */
function Opened({ id, onClose }: { id: number; onClose: () => void }) {
  const { where } = useWhere()
  const f = useFinding(where.id, id)
  const visit = useLocation().key // another one when the same finding is opened again
  const there = f.isSuccess
  useEffect(() => {
    if (!there) return
    // What was typed while it opened belongs to nothing. Who opened it reads it; who
    // is in a field already, as one who narrows the list, stays there.
    const opened = takeTyped('finding') !== null
    if (opened || !inField(document.activeElement)) document.querySelector<HTMLElement>('.editor')?.focus({ preventScroll: true })
  }, [there, visit])
  if (f.isError) return <p className="warn">{f.error.message}</p>
  if (!f.data) return null
  return <Editor key={id} f={f.data} onClose={onClose} />
}
