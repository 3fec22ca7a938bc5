import { useVirtualizer } from '@tanstack/react-virtual'
import { useEffect, useMemo, useRef, useState } from 'react'
import { Link } from 'react-router'
import { useLedger } from '../api/queries'
import type { Ledger, Row } from '../api/types'
import { inField } from '../frame/gate'
import { Failed, Waiting } from '../frame/Waiting'
import { parentOf, stay, urlOf, useWhere } from '../place/place'
import { counted, figure, inkStep, spokenDay, shortPath } from '../theme/ink'
import { roleLook, roleName } from '../theme/roles'
import { useNarrowing } from '../place/narrow'
import { FolderFiles } from './FolderFiles'
import { RoleBar } from './RoleBar'
import { chosenColumns, columns, type ColumnLook } from './columns'
import { arrange, firstDepth, heightOf, nearestRow, needsTwoLines, rowHeight, type Column, type Shown } from './tree'

/** The folders of a place as a ruled ledger. */
export default function Layout({ legend }: { legend: boolean }) {
  const { where } = useWhere()
  const ledger = useLedger(where)
  if (ledger.isError) return <Failed error={ledger.error} />
  if (!ledger.data) return <Waiting />
  return <Ruled key={ledger.data.place} ledger={ledger.data} legend={legend} />
}

function Ruled({ ledger, legend }: { ledger: Ledger; legend: boolean }) {
  const { where, query, go, pick, show } = useWhere()
  const [toggled, setToggled] = useState<ReadonlySet<string>>(new Set())
  const [filter, setFilter] = useState(query.get('filter') ?? '')
  const sort = (query.get('sort') as Column | null) ?? 'name'
  const down = query.get('down') === '1'
  const only = (query.get('only') ?? '') as '' | 'smelly' | 'unread'
  const narrowing = useNarrowing(where)
  const all = useMemo(
    () => (narrowing ? ledger.rows.filter((r, i) => i === 0 || narrowing.holds(r.path)) : ledger.rows),
    [ledger, narrowing],
  )
  const depth = useMemo(() => firstDepth(all, narrowing ? 200 : 60), [all, narrowing])
  const shown = useMemo(
    () => arrange(all, { sort, down, filter, only, toggled, depth }),
    [all, sort, down, filter, only, toggled, depth],
  )
  const most = useMemo(() => Math.max(1, ...ledger.rows.slice(1).map((r) => r.judged)), [ledger])
  const used = useMemo(() => {
    const s = new Set<number>()
    for (const r of ledger.rows) for (const [i] of r.roles) s.add(i ?? -1)
    return [...s].sort((a, b) => (a < 0 ? 99 : a) - (b < 0 ? 99 : b))
  }, [ledger])
  const box = useRef<HTMLDivElement>(null)
  const chosen = chosenColumns(query.get('columns'))
  const [width, setWidth] = useState(900)
  // What is left for names and purposes beside the columns, as the grid deals it out.
  const named = Math.max(240, width - 198 - chosen.reduce((n, c) => n + c.width + 6, 0))
  const rows = useVirtualizer({
    count: shown.length,
    getScrollElement: () => box.current,
    estimateSize: (i) => (shown[i] ? heightOf(shown[i].row, named) : rowHeight),
    overscan: 12,
  })
  useEffect(() => {
    const o = new ResizeObserver(([e]) => e && setWidth(e.contentRect.width))
    if (box.current) o.observe(box.current)
    return () => o.disconnect()
  }, [])
  useEffect(() => rows.measure(), [rows, named, shown])
  const picked = nearestRow(shown, where.pick || where.at)
  const top = ledger.rows[0]

  const toggle = (r: Row) => {
    const next = new Set(toggled)
    if (!next.delete(r.path)) next.add(r.path)
    setToggled(next)
  }
  const open = (r: Row) => go(r.file ? { at: r.path, view: 'code' } : { at: r.path })
  // Keys may come faster than the URL follows: each goes on from the last.
  const at = useRef(picked)
  useEffect(() => {
    at.current = picked
  }, [picked])
  const move = (to: number) => {
    const s = shown[Math.max(0, Math.min(shown.length - 1, to))]
    if (!s) return
    at.current = shown.indexOf(s)
    pick({ pick: s.row.path })
    rows.scrollToIndex(shown.indexOf(s), { align: 'auto' })
  }
  const press = (e: React.KeyboardEvent) => {
    const s = shown[at.current]
    const page = Math.max(1, Math.floor((box.current?.clientHeight ?? 560) / 28) - 2)
    const moves: Record<string, () => void> = {
      ArrowDown: () => move(at.current + 1),
      ArrowUp: () => move(at.current - 1),
      PageDown: () => move(at.current + page),
      PageUp: () => move(at.current - page),
      Home: () => move(0),
      End: () => move(shown.length - 1),
      ArrowRight: () => s && s.parent && !s.open && toggle(s.row),
      ArrowLeft: () => {
        if (!s) return
        if (s.open) toggle(s.row)
        else if (s.row.path !== '.') move(nearestRow(shown, parentOf(s.first)))
      },
      Enter: () => s && open(s.row),
    }
    const run = moves[e.key]
    if (run && !e.ctrlKey && !e.metaKey && !e.altKey) {
      e.preventDefault()
      run()
    }
  }
  useEffect(() => {
    // Whoever is writing already is not interrupted by rows that come late.
    if (!inField(document.activeElement)) box.current?.focus({ preventScroll: true })
  }, [ledger.place])
  const sortBy = (c: Column) => show(c === sort ? { sort: c, down: down ? '' : '1' } : { sort: c, down: c === 'name' ? '' : '1' })
  const folders = ledger.rows.filter((r) => !r.file).length
  // A row may stand for several folders.
  const listed = shown.reduce((n, s) => n + s.count, 0)
  return (
    <section className="layout">
      <div className="tools">
        <h1>{ledger.place === '.' ? top?.name : ledger.place}</h1>
        <p className="say">
          {counted(folders, 'folder')} with {counted(top?.files ?? 0, 'file')} and {figure(top?.lines ?? 0)} lines
          {listed < ledger.rows.length && <span className="faint">; {figure(listed)} of them shown</span>}
        </p>
        <div className="filters">
          <label>
            <span className="hidden">Filter</span>
            <input
              type="search"
              placeholder="Filter by name or purpose"
              value={filter}
              onChange={(e) => {
                setFilter(e.target.value)
                show({ filter: e.target.value })
              }}
            />
          </label>
          {(['smelly', 'unread'] as const).map((o) => (
            <button key={o} type="button" aria-pressed={only === o} onClick={() => show({ only: only === o ? '' : o })}>
              only {o}
            </button>
          ))}
          <button type="button" onClick={() => setToggled(new Set())}>
            fold as at first
          </button>
          <ColumnChoice chosen={chosen} onChoose={(ids) => show({ columns: ids })} />
        </div>
      </div>
      {legend && (
        <p className="legend" aria-label="Legend of roles">
          {used.map((i) => (
            <span key={i}>
              <i className={roleLook(i)} /> {roleName(ledger.roles, i)}
            </span>
          ))}
        </p>
      )}
      <div
        ref={box}
        className="ledger"
        role="treegrid"
        aria-label="Folders"
        aria-rowcount={shown.length + 1}
        tabIndex={0}
        aria-activedescendant={picked >= 0 ? `row-${picked}` : undefined}
        onKeyDown={press}
        style={{ '--columns': chosen.map((c) => `${c.width}px`).join(' ') } as React.CSSProperties}
      >
        <div className="lrow head" role="row">
          <span role="columnheader">
            <span className="hidden">looked at</span>
          </span>
          <SortHead id="name" title="folder and purpose" hint="names, folders first" sort={sort} down={down} onSort={sortBy} />
          <span role="columnheader" className="l">
            what it holds
          </span>
          {chosen.map((c) => (
            <SortHead key={c.id} {...c} sort={sort} down={down} onSort={sortBy} />
          ))}
        </div>
        <div className="lbody" role="rowgroup" style={{ height: rows.getTotalSize() }}>
          {rows.getVirtualItems().map((v) => {
            const s = shown[v.index]
            return (
              s && (
                <Line
                  key={s.row.path + (s.row.file ? '' : '/')}
                  s={s}
                  index={v.index}
                  start={v.start}
                  roles={ledger.roles}
                  most={most}
                  chosen={chosen}
                  height={v.size}
                  two={needsTwoLines(s.row, named)}
                  picked={v.index === picked}
                  here={s.row === top}
                  onPick={() => pick({ pick: s.row.path })}
                  onToggle={() => toggle(s.row)}
                  href={
                    s.row.file
                      ? urlOf({ ...stay(where), view: 'code', at: s.row.path })
                      : urlOf({ ...stay(where), view: 'layout', at: s.row.path })
                  }
                />
              )
            )
          })}
        </div>
      </div>
      <FolderFiles />
      {shown.length === 1 && (filter || only) && <p className="faint pad">Nothing else fits this filter.</p>}
    </section>
  )
}

function SortHead(p: { id: Column; title: string; hint: string; sort: Column; down: boolean; onSort: (c: Column) => void }) {
  const on = p.sort === p.id
  return (
    <span
      role="columnheader"
      aria-sort={on ? (p.down ? 'descending' : 'ascending') : 'none'}
      className={p.id === 'name' ? 'l' : ''}
    >
      <button type="button" title={p.hint} onClick={() => p.onSort(p.id)} tabIndex={-1}>
        {p.title}
        {on ? (p.down ? ' ↓' : ' ↑') : ''}
      </button>
    </span>
  )
}

interface LineProps {
  s: Shown
  index: number
  start: number
  roles: Ledger['roles']
  most: number
  chosen: readonly ColumnLook[]
  height: number
  two: boolean
  picked: boolean
  here: boolean
  href: string
  onPick: () => void
  onToggle: () => void
}

function Line({ s, index, start, roles, most, chosen, height, two, picked, here, href, onPick, onToggle }: LineProps) {
  const r = s.row
  const read = r.read >= 1 ? '●' : r.read > 0 ? '◐' : '○'
  return (
    <div
      id={`row-${index}`}
      role="row"
      aria-level={r.depth + 1}
      aria-expanded={s.parent ? s.open : undefined}
      aria-selected={picked}
      aria-rowindex={index + 2}
      className={`lrow${picked ? ' picked' : ''}${here ? ' here' : ''}`}
      style={{ transform: `translateY(${start}px)`, height }}
      onClick={onPick}
    >
      <span
        role="gridcell"
        className="readmark"
        title={r.judged ? `${Math.round(r.read * 100)} % looked at` : 'nothing to judge'}
      >
        {r.judged ? read : ''}
      </span>
      <span role="gridcell" className="l named" style={{ paddingLeft: Math.min(r.depth, 10) * 14 }}>
        {s.parent ? (
          <button
            type="button"
            className="twist"
            tabIndex={-1}
            aria-label={s.open ? `Fold ${r.name}` : `Unfold ${r.name}`}
            onClick={onToggle}
          >
            {s.open ? '▾' : '▸'}
          </button>
        ) : (
          <span className="twist" />
        )}
        <Link to={href} tabIndex={-1} className="mono" title={r.path}>
          {shortPath(r.name, r.purpose ? 24 : 40)}
        </Link>
        <span
          className={`rpurpose ${r.source}${two ? ' two' : ''}`}
          title={r.purpose ? `${r.purpose} (${r.source === 'author' ? 'its authors' : r.source})` : undefined}
        >
          {r.purpose}
        </span>
      </span>
      <span role="gridcell" className="l">
        {r.skipped ? (
          <small className="faint">{r.skipped}</small>
        ) : (
          <RoleBar row={r} roles={roles} most={here ? r.judged : most} />
        )}
      </span>
      {chosen.map((c) => (
        <span key={c.id} role="gridcell">
          <Cell id={c.id} r={r} />
        </span>
      ))}
    </div>
  )
}

function Cell({ id, r }: { id: ColumnLook['id']; r: Row }) {
  switch (id) {
    case 'lines':
      return figure(r.lines)
    case 'files':
      return r.file ? '' : figure(r.files)
    case 'smells':
      return r.smells ? <span className={`ink k${inkStep(r.strongest)}`}>{figure(r.smells)}</span> : ''
    case 'findings':
      return r.findings ? <span className="noted">{figure(r.findings)}</span> : ''
    case 'changed':
      return r.changed ? <time dateTime={r.changed}>{spokenDay(r.changed)}</time> : ''
    default:
      return r[id] ? figure(r[id]) : ''
  }
}

/** Lets the reader choose which figures stand beside the folders. */
function ColumnChoice({ chosen, onChoose }: { chosen: readonly ColumnLook[]; onChoose: (ids: string) => void }) {
  const on = new Set(chosen.map((c) => c.id))
  return (
    <details className="columns">
      <summary>columns</summary>
      <div className="choice">
        {columns.map((c) => (
          <label key={c.id} title={c.hint}>
            <input
              type="checkbox"
              checked={on.has(c.id)}
              onChange={() => {
                const next = columns.filter((x) => (x.id === c.id ? !on.has(x.id) : on.has(x.id))).map((x) => x.id)
                onChoose(next.length > 0 ? next.join(',') : 'none')
              }}
            />{' '}
            {c.title} <small className="faint">{c.hint}</small>
          </label>
        ))}
      </div>
    </details>
  )
}
