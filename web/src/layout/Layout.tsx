import { useCallback, useMemo, useState } from 'react'
import { useLedger } from '../api/queries'
import type { Ledger as Folders, Row } from '../api/types'
import { Ledger, type Column as LedgerColumn, type Tree } from '../parts/ledger/Ledger'
import { Failed, Waiting } from '../parts/Waiting'
import { useNarrowing } from '../place/narrow'
import { flipped, parentOf, useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'
import { roleLook, roleName } from '../theme/roles'
import { Figure, NameCell, ReadCell } from './cells'
import { chosenColumns, columnsIn } from './columns'
import { FolderFiles } from './FolderFiles'
import { LayoutTools } from './LayoutTools'
import { RoleBar } from './RoleBar'
import { arrange, firstDepth, heightOf, listText, listFrom, nearestRow, type Column, type Shown } from './tree'
import './layout.css'

/** The folders of a place as a ruled ledger. */
export default function Layout() {
  const { where } = useWhere()
  const ledger = useLedger(where)
  if (ledger.isError) return <Failed error={ledger.error} />
  if (!ledger.data) return <Waiting />
  return <Ruled key={ledger.data.place} ledger={ledger.data} />
}

function Ruled({ ledger }: { ledger: Folders }) {
  const { where, query, go, pick, show } = useWhere()
  const sort = (query.get('sort') as Column | null) ?? 'name'
  const down = query.get('down') === '1'
  const only = (query.get('only') ?? '') as '' | 'smelly' | 'unread' | 'own'
  const filter = query.get('filter') ?? ''
  const folded = query.get('fold')
  const toggled = useMemo(() => new Set(listFrom(folded)), [folded])
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
  const [width, setWidth] = useState(900)
  const chosen = useMemo(() => columnsIn(chosenColumns(query.get('columns')), width), [query, width])
  // What is left for names and purposes beside the columns, as the grid deals it out.
  const named = Math.max(240, width - 198 - chosen.reduce((n, c) => n + c.width + 8, 0))
  const top = ledger.rows[0]
  const at = nearestRow(shown, where.pick || where.at)
  const toggle = useCallback((r: Row) => show((now) => ({ fold: listText(flipped(listFrom(now.get('fold')), r.path)) })), [show])
  const columns = useMemo<LedgerColumn<Shown>[]>(
    () => [
      { id: 'read', title: <span className="hidden">looked at</span>, width: '22px', cell: (s) => <ReadCell row={s.row} /> },
      {
        id: 'name',
        title: 'folder and purpose',
        hint: 'names, folders first',
        width: 'minmax(150px, 1fr)',
        value: (s) => s.row.name,
        cell: (s) => <NameCell s={s} named={named} onFold={toggle} />,
      },
      {
        id: 'roles',
        title: 'what it holds',
        width: 'minmax(64px, 118px)',
        cell: (s) =>
          s.row.skipped ? (
            <small className="faint">{s.row.skipped}</small>
          ) : (
            <RoleBar row={s.row} roles={ledger.roles} most={s.row === top ? s.row.judged : most} />
          ),
      },
      ...chosen.map((c) => ({
        id: c.id,
        title: c.title,
        hint: c.hint,
        width: `${c.width}px`,
        right: true,
        value: () => 0, // the rows come sorted within their folders
        cell: (s: Shown) => <Figure id={c.id} r={s.row} />,
      })),
    ],
    [chosen, ledger.roles, most, named, toggle, top],
  )
  const tree = useMemo<Tree<Shown>>(
    () => ({
      depth: (s) => s.row.depth,
      open: (s) => (s.parent ? s.open : undefined),
      onFold: (s) => toggle(s.row),
      parent: (s) => (s.row.path === '.' ? '' : (shown[nearestRow(shown, parentOf(s.first))]?.row.path ?? '')),
    }),
    [shown, toggle],
  )
  const sizeOf = useCallback((s: Shown) => heightOf(s.row, named), [named])
  const folders = ledger.rows.filter((r) => !r.file).length
  // A row may stand for several folders.
  const listed = shown.reduce((n, s) => n + s.count, 0)
  return (
    <section className="layout">
      <LayoutTools
        title={ledger.place === '.' ? (top?.name ?? '') : ledger.place}
        says={`${counted(folders, 'folder')} with ${counted(top?.files ?? 0, 'file')} and ${figure(top?.lines ?? 0)} lines`}
        shown={listed < ledger.rows.length ? `${figure(listed)} of them shown` : ''}
        only={only}
        chosen={chosen}
      />
      {where.legend !== 'off' && <Legend ledger={ledger} />}
      <Ledger
        label="Folders"
        columns={columns}
        rows={shown}
        idOf={(s) => s.row.path}
        picked={shown[at]?.row.path ?? ''}
        onPick={(id) => pick({ pick: id })}
        onOpen={(s) => go(s.row.file ? { at: s.row.path, view: 'code' } : { at: s.row.path })}
        sorting={{ by: sort, down }}
        onSort={(s) => show({ sort: s.by === 'name' && !s.down ? '' : s.by, down: s.down ? '1' : '' })}
        sorted
        tree={tree}
        heightOf={sizeOf}
        classOf={(s) => (s.row === top ? 'here' : '')}
        focus
        onWidth={setWidth}
      />
      {/* Half a page has no room for them. */}
      {!where.beside && <FolderFiles />}
      {shown.length === 1 && (filter || only) && <p className="faint pad">Nothing else fits this filter.</p>}
    </section>
  )
}

/** The roles that occur, with their patterns, in one line. */
function Legend({ ledger }: { ledger: Folders }) {
  const used = useMemo(() => {
    const s = new Set<number>()
    for (const r of ledger.rows) for (const [i] of r.roles) s.add(i ?? -1)
    return [...s].sort((a, b) => (a < 0 ? 99 : a) - (b < 0 ? 99 : b))
  }, [ledger])
  return (
    <p className="legend" aria-label="Legend of roles">
      {used.map((i) => (
        <span key={i}>
          <i className={roleLook(i)} /> {roleName(ledger.roles, i)}
        </span>
      ))}
      <span title="generated, built, vendored, data, or left out by the brief">
        <i className="role foreign" /> not judged
      </span>
    </p>
  )
}
