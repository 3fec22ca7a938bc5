import { useEffect, useMemo, useRef, useState } from 'react'
import { useLocation } from 'react-router'
import { useFindings } from '../api/queries'
import type { Finding } from '../api/types'
import { Failed, Waiting } from '../frame/Waiting'
import { isOpening, takeTyped } from '../frame/gate'
import { useKeys } from '../frame/keys'
import { PlaceLink } from '../place/PlaceLink'
import { useNarrowing } from '../place/narrow'
import { useWhere } from '../place/place'
import { counted } from '../theme/ink'
import { Editor } from './Editor'
import { kinds, states } from './kinds'
import { between, grouped, groupings, passes, type Filter, type Grouping } from './list'
import { useReview } from './review'
import { Sign } from './Sign'

/** The team's list, in the order set, grouped and filtered as the URL says. */
export default function Findings() {
  const { where, query, show } = useWhere()
  const visit = useLocation().key // another one when the same finding is opened again
  const all = useFindings(where.id)
  const review = useReview()
  const [chosen, setChosen] = useState(-1)
  const [problem, setProblem] = useState('')
  const box = useRef<HTMLDivElement>(null)
  const by = (query.get('group') as Grouping | null) ?? 'order'
  const open = Number(query.get('open')) || 0
  const filter: Filter = useMemo(
    () => ({
      at: where.at,
      words: query.get('words') ?? '',
      kind: query.get('kind') ?? '',
      state: query.get('state') ?? '',
      person: query.get('person') ?? '',
      label: query.get('label') ?? '',
    }),
    [where.at, query],
  )
  const narrowing = useNarrowing(where)
  const list = useMemo(
    () =>
      (all.data ?? []).filter(
        (f) => passes(f, filter) && (!narrowing || (f.place.path !== '.' && narrowing.holds(f.place.path))),
      ),
    [all.data, filter, narrowing],
  )
  const groups = useMemo(() => grouped(list, by), [list, by])
  const flat = useMemo(() => groups.flatMap((g) => g.findings), [groups])
  const people = [...new Set((all.data ?? []).map((f) => f.assignee).filter(Boolean))].sort()
  const labels = [...new Set((all.data ?? []).flatMap((f) => f.labels))].sort()
  const choose = (i: number) => {
    const next = Math.max(0, Math.min(flat.length - 1, i))
    setChosen(next)
    box.current?.querySelectorAll('.frow')[next]?.scrollIntoView({ block: 'nearest' })
  }
  useKeys({ next: () => choose(chosen + 1), previous: () => choose(chosen - 1) })
  const ready = all.isSuccess
  useEffect(() => {
    if (!open || !ready) return
    const row = document.getElementById(`finding-${open}`)
    row?.scrollIntoView({ block: 'nearest' })
    // Who opened it reads it: what is typed next belongs to no view behind it.
    row?.querySelector<HTMLElement>('.editor')?.focus({ preventScroll: true })
  }, [open, ready])
  useEffect(() => {
    // What was typed while it opened belongs to nothing. Other visits, as one
    // to another filter, leave the focus where it is.
    if (ready && takeTyped('finding')) box.current?.querySelector<HTMLElement>('.editor')?.focus({ preventScroll: true })
  }, [ready, visit])
  if (all.isError) return <Failed error={all.error} />
  if (!all.data) return <Waiting />
  const move = (f: Finding, step: number) => {
    const i = list.indexOf(f)
    const to = i + step
    if (by !== 'order' || to < 0 || to >= list.length) return
    const before = step > 0 ? list[to] : list[to - 1]
    const after = step > 0 ? list[to + 1] : list[to]
    setChosen(to)
    review.change(f, { position: between(before, after) }).catch((e: Error) => setProblem(e.message))
  }
  const toggle = (f: Finding) => {
    if (open !== f.id) isOpening('finding')
    show({ open: open === f.id ? '' : String(f.id) })
  }
  const press = (e: React.KeyboardEvent) => {
    if ((e.target as HTMLElement).closest('input, textarea, select, .editor')) return
    const f = flat[chosen]
    if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
      const step = e.key === 'ArrowDown' ? 1 : -1
      e.preventDefault()
      if (e.altKey && f) move(f, step)
      else choose(chosen + step)
    } else if (e.key === 'Enter' && f && e.target === box.current) {
      e.preventDefault()
      toggle(f)
    }
  }
  const filtered = list.length < all.data.length
  const pickOf = (name: 'kind' | 'state' | 'person' | 'label', options: { value: string; text: string }[]) => (
    <label>
      <span className="hidden">{name}</span>
      <select value={filter[name]} onChange={(e) => show({ [name]: e.target.value })}>
        <option value="">any {name}</option>
        {options.map((o) => (
          <option key={o.value} value={o.value}>
            {o.text}
          </option>
        ))}
      </select>
    </label>
  )
  return (
    <section className="findings">
      <h1>Findings{where.at === '.' ? '' : ` below ${where.at}`}</h1>
      <div className="filters">
        <span className="faint">Group by</span>
        {groupings.map((g) => (
          <button
            key={g.id}
            type="button"
            aria-pressed={by === g.id}
            onClick={() => show({ group: g.id === 'order' ? '' : g.id })}
          >
            {g.title}
          </button>
        ))}
        {pickOf(
          'kind',
          kinds.map((k) => ({ value: k.kind, text: `${k.sign} ${k.word}` })),
        )}
        {pickOf('state', [{ value: 'open', text: 'still open' }, ...states.map((s) => ({ value: s.state, text: s.word }))])}
        {people.length > 0 &&
          pickOf(
            'person',
            people.map((p) => ({ value: p, text: p })),
          )}
        {labels.length > 0 &&
          pickOf(
            'label',
            labels.map((l) => ({ value: l, text: `#${l}` })),
          )}
        <label>
          <span className="hidden">Words</span>
          <input type="search" placeholder="Words" value={filter.words} onChange={(e) => show({ words: e.target.value })} />
        </label>
      </div>
      <p className="faint exports">
        {filtered ? `${list.length} of ${counted(all.data.length, 'finding')}` : counted(all.data.length, 'finding')}. Hand them
        out:{' '}
        <a href={`/api/codebases/${where.id}/export/findings.md`} download>
          Markdown
        </a>
        <a href={`/api/codebases/${where.id}/export/findings.csv`} download>
          CSV
        </a>
      </p>
      {problem && (
        <p role="alert" className="warn">
          {problem}
        </p>
      )}
      {all.data.length === 0 && (
        <div className="empty">
          <p className="say">Nothing is recorded yet.</p>
          <p>
            Press <kbd>n</kbd> at any place and write one line; or press <kbd>s</kbd> on a smell in the margin, and its evidence
            comes along.
          </p>
        </div>
      )}
      {all.data.length > 0 && list.length === 0 && <p className="faint">No finding fits this filter.</p>}
      <div
        ref={box}
        tabIndex={0}
        role="group"
        aria-label="Findings; arrows move, Enter opens"
        onKeyDown={press}
        className="flist"
        data-focus
      >
        {groups.map((g) => (
          <div key={g.title}>
            {g.title && (
              <h2>
                <span className={by === 'place' ? 'mono' : ''}>{g.title}</span> <small>{g.findings.length}</small>
              </h2>
            )}
            {g.findings.map((f) => {
              const i = flat.indexOf(f)
              return (
                <div
                  key={f.id}
                  id={`finding-${f.id}`}
                  className={`frow${i === chosen ? ' picked' : ''}${f.state === 'done' || f.state === 'dropped' ? ' settled' : ''}`}
                >
                  <div className="fline" onClick={() => setChosen(i)}>
                    <Sign kind={f.kind} />
                    <button
                      type="button"
                      className="asText"
                      aria-expanded={open === f.id}
                      onClick={() => {
                        setChosen(i)
                        toggle(f)
                      }}
                    >
                      {f.title}
                    </button>
                    <span className="fplace">
                      <PlaceLink
                        path={f.place.path}
                        line={f.place.line}
                        end={f.place.end_line}
                        max={f.place.line > 0 ? 24 : 28}
                      />
                    </span>
                    <span className="fwho">{f.assignee}</span>
                    <span className="flabels">{f.labels.map((l) => `#${l}`).join(' ')}</span>
                    <span className={`fstate s-${f.state}`}>{f.state}</span>
                    <span className="fmove">
                      {by === 'order' && (
                        <>
                          <button type="button" aria-label="Earlier" disabled={i === 0} onClick={() => move(f, -1)}>
                            ↑
                          </button>
                          <button type="button" aria-label="Later" disabled={i === list.length - 1} onClick={() => move(f, 1)}>
                            ↓
                          </button>
                        </>
                      )}
                    </span>
                  </div>
                  {open === f.id && (
                    <Editor
                      f={f}
                      onClose={() => {
                        show({ open: '' })
                        box.current?.focus({ preventScroll: true })
                      }}
                    />
                  )}
                </div>
              )
            })}
          </div>
        ))}
      </div>
    </section>
  )
}
