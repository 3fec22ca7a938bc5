import { useEffect, useRef, useState } from 'react'
import { useGrid, useOverrule, useOverrules, useSettings } from '../api/queries'
import type { Grid } from '../api/types'
import { inField } from '../frame/gate'
import { Failed, Waiting } from '../frame/Waiting'
import { PlaceLink } from '../place/PlaceLink'
import { nameOf, useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'
import { roleLook, roleOrder } from '../theme/roles'
import { TaughtWords } from './TaughtWords'
import { cutSentence, grouped, joined, type Joined } from './joins'

/** Roles down, features across: how the code is cut, whatever its folders say. */
export default function Weave() {
  const { where } = useWhere()
  const grid = useGrid(where)
  if (grid.isError) return <Failed error={grid.error} />
  if (!grid.data) return <Waiting />
  return <Woven key={grid.data.place} grid={grid.data} />
}

function Woven({ grid }: { grid: Grid }) {
  const { where, show } = useWhere()
  const rows = joined(grid)
  const most = Math.max(1, ...grid.cells.map((c) => c.lines))
  // What is picked here narrows every other view; -1 stands for nothing.
  const atRole = where.role ? grid.roles.indexOf(where.role) : -1
  const atFeature = where.feature ? grid.features.findIndex((f) => (f.name || '-') === where.feature) : -1
  const groups = grouped(grid.features)
  const table = useRef<HTMLTableElement>(null)
  const go = (r: number, f: number, first: string) =>
    show({ role: grid.roles[r] ?? '', feature: f < 0 ? '' : grid.features[f]?.name || '-', pick: first })
  // Where arrows have gone before the page was drawn anew: keys come faster.
  const ahead = useRef<[number, number]>(null)
  useEffect(() => {
    if (ahead.current?.[0] === atRole && ahead.current[1] === atFeature) ahead.current = null
  }, [atRole, atFeature])
  const choose = (r: number, f: number, first = '') => {
    ahead.current = null
    if (r === atRole && f === atFeature) show({ role: '', feature: '', pick: '' })
    else go(r, f, first)
  }
  const press = (e: React.KeyboardEvent) => {
    if (e.ctrlKey || e.metaKey || e.altKey || inField(e.target)) return
    const step = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[e.key]
    if (!step) return
    e.preventDefault()
    const [fromRole, fromFeature] = ahead.current ?? [atRole, atFeature]
    const r = Math.max(0, Math.min(grid.roles.length - 1, Math.max(0, fromRole) + (step[0] ?? 0)))
    const f = Math.max(0, Math.min(grid.features.length - 1, Math.max(0, fromFeature) + (step[1] ?? 0)))
    if (r !== fromRole || f !== fromFeature) {
      ahead.current = [r, f]
      go(r, f, rows[r]?.[f]?.cell.first ?? '')
    }
    table.current?.querySelector(`[data-cell="${r},${f}"]`)?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
  }
  const cell = rows[atRole]?.[atFeature]
  const feature = grid.features[atFeature]
  return (
    <section className="weave findings">
      <h1>Weave</h1>
      <p className="say">
        {cutSentence(grid.cut)}
        {grid.cut_of !== '.' && grid.cut_of !== grid.place && (
          <span className="faint">
            {' '}
            (as all of <PlaceLink path={grid.cut_of} />)
          </span>
        )}
      </p>
      {grid.cut.evidence.length > 0 && (
        <details className="why">
          <summary>What this rests on</summary>
          <ul>
            {grid.cut.evidence.map((e) => (
              <li key={e.path + e.note}>{e.note}</li>
            ))}
            {grid.modules.length > 1 &&
              grid.modules.map((m) => (
                <li key={m.path}>
                  <PlaceLink path={m.path} />: {m.cut.label || 'too little to tell'}
                  {m.cut.value !== null && <> ({m.cut.value.toFixed(2)} between −1 by kind and 1 by feature)</>}
                </li>
              ))}
          </ul>
        </details>
      )}
      {grid.cells.length === 0 ? (
        <div className="empty">
          <p className="say">No file here has both a role and a feature.</p>
        </div>
      ) : (
        <div className="grid" onKeyDown={press}>
          <table ref={table} tabIndex={0} aria-label="Roles by features; arrows move, the margin tells of what is picked">
            <thead>
              {groups.length > 1 && (
                <tr className="groups">
                  <td />
                  {groups.map((g) => (
                    <td key={g.from} colSpan={g.n} title={g.name ? `most of these features lies in ${g.name}` : undefined}>
                      <span>{g.name}</span>
                    </td>
                  ))}
                </tr>
              )}
              <tr>
                <td />
                {grid.features.map((f, i) => (
                  <th key={f.name} scope="col" className={i === atFeature && atRole < 0 ? 'picked' : ''}>
                    <button
                      type="button"
                      title={
                        f.name
                          ? `${f.name}: ${counted(f.files, 'file')} in ${counted(f.scatter, 'folder')}`
                          : 'files of no single feature'
                      }
                      onClick={() => choose(-1, i)}
                    >
                      {f.name || 'shared'}
                    </button>
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {grid.roles.map((role, r) => (
                <tr key={role} className={r === atRole && atFeature < 0 ? 'picked' : ''}>
                  <th scope="row">
                    <button type="button" onClick={() => choose(r, -1)}>
                      <i className={roleLook(roleOrder.indexOf(role))} aria-hidden="true" />
                      {role}
                    </button>
                  </th>
                  {grid.features.map((f, i) => (
                    <CellBox
                      key={f.name}
                      at={`${r},${i}`}
                      cell={rows[r]?.[i] ?? null}
                      gap={f.missing.includes(r)}
                      most={most}
                      picked={r === atRole && i === atFeature}
                      role={role}
                      feature={f.name || 'shared'}
                      onPick={(first) => choose(r, i, first)}
                    />
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {grid.more > 0 && <p className="faint">{counted(grid.more, 'smaller feature')} are not shown.</p>}
      <p className="faint">
        Cells that lie in one folder are joined. A dashed cell is a part that most features have and this one has not.
      </p>
      {cell && (
        <section className="told">
          <h2>
            {feature?.name || 'shared'} · {grid.roles[cell.cell.role]}
          </h2>
          <p>
            {counted(cell.cell.files, 'file')}, {figure(cell.cell.lines)} lines
            {cell.cell.folders > 1 ? `, in ${cell.cell.folders} folders, most in ` : ', in '}
            <PlaceLink path={cell.cell.folder} />
          </p>
          <ul className="places">
            {cell.cell.paths.map((p) => (
              <li key={p}>
                <PlaceLink path={p} />
              </li>
            ))}
          </ul>
        </section>
      )}
      {!cell && feature && <Anatomy key={feature.name} grid={grid} index={atFeature} />}
      <TaughtWords />
    </section>
  )
}

function CellBox({
  at,
  cell,
  gap,
  most,
  picked,
  role,
  feature,
  onPick,
}: {
  at: string
  cell: Joined | null
  gap: boolean
  most: number
  picked: boolean
  role: string
  feature: string
  onPick: (first: string) => void
}) {
  if (!cell)
    return (
      <td data-cell={at} className={`${gap ? 'gap' : ''} ${picked ? 'picked' : ''}`}>
        {gap && <span className="hidden">no {role}, which most features have</span>}
      </td>
    )
  const c = cell.cell
  const joins = [cell.left && 'left', cell.right && 'right', cell.up && 'up', cell.down && 'down'].filter(Boolean).join(' ')
  return (
    <td data-cell={at} className={picked ? 'picked' : ''}>
      <button
        type="button"
        className={`cell ${joins}`}
        title={`${feature}, ${role}: ${counted(c.files, 'file')}, ${figure(c.lines)} lines in ${c.folder}`}
        onClick={() => onPick(c.first)}
      >
        <span className="bar" style={{ height: `${8 + 22 * Math.sqrt(c.lines / most)}px` }} />
        <span className="n">{c.files}</span>
        {!cell.left && !cell.up && <span className="folder">{nameOf(c.folder)}</span>}
      </button>
    </td>
  )
}

/** One feature against its siblings, and what the lead says of it. */
function Anatomy({ grid, index }: { grid: Grid; index: number }) {
  const { where } = useWhere()
  const person = useSettings().data?.person ?? ''
  const set = useOverrule(where.id)
  const by = useOverrules(where.id).data ?? []
  const f = grid.features[index]
  const [name, setName] = useState(f?.name ?? '')
  if (!f) return null
  const parts = grid.cells.filter((c) => c.feature === index)
  const renames = by.filter((o) => o.kind === 'rename')
  return (
    <section className="told">
      <h2>{f.name || 'shared'}</h2>
      <p>
        {counted(f.files, 'file')}, {figure(f.lines)} lines
        {f.name && <>, in {counted(f.scatter, 'folder')}</>}.
        {f.missing.length > 0 && (
          <> It has no {f.missing.map((i) => grid.roles[i]).join(' and no ')}, which most features have.</>
        )}
      </p>
      <ul className="places">
        {parts.map((c) => (
          <li key={c.role}>
            {grid.roles[c.role]}: {counted(c.files, 'file')} in <PlaceLink path={c.folder} />
          </li>
        ))}
      </ul>
      {f.name && (
        <form
          className="byhand"
          onSubmit={(e) => {
            e.preventDefault()
            if (name.trim() && name.trim() !== f.name)
              set.mutate({ kind: 'rename', target: f.name, value: name.trim(), by: person })
          }}
        >
          <label>
            Call it
            <input value={name} onChange={(e) => setName(e.target.value)} list="features" />
          </label>
          <datalist id="features">{grid.features.map((o) => o.name && <option key={o.name} value={o.name} />)}</datalist>
          <button type="submit" className="quiet">
            {grid.features.some((o) => o.name === name.trim() && o.name !== f.name) ? 'Merge the two' : 'Rename'}
          </button>
          <button
            type="button"
            className="quiet"
            onClick={() => set.mutate({ kind: 'rename', target: f.name, value: '', by: person })}
          >
            It is no feature
          </button>
        </form>
      )}
      {set.isError && <p role="alert">{set.error.message}</p>}
      {renames.length > 0 && (
        <ul className="byhand">
          {renames.map((o) => (
            <li key={o.target}>
              <span className="mono">{o.target}</span> {o.value ? <>is called {o.value}</> : 'is no feature'}, set by hand{' '}
              <button type="button" className="quiet" onClick={() => set.mutate({ ...o, gone: true })}>
                Take back
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  )
}
