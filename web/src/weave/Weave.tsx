import { useRef, useState } from 'react'
import { useGrid } from '../api/queries'
import type { Grid } from '../api/types'
import { Failed, Waiting } from '../parts/Waiting'
import { useWidth } from '../parts/width'
import { WordsField } from '../parts/WordsField'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { counted } from '../theme/ink'
import { AnatomyGrid } from './AnatomyGrid'
import { FeatureTold } from './FeatureTold'
import { CellTold } from './CellTold'
import { RolesGrid } from './RolesGrid'
import { SideGrid } from './SideGrid'
import { TaughtWords } from './TaughtWords'
import { cutSentence, fitting, joined } from './joins'
import './weave.css'

/** Roles down, features across: how the code is cut, whatever its folders say. */
export default function Weave() {
  const { where } = useWhere()
  const grid = useGrid(where)
  if (grid.isError) return <Failed error={grid.error} />
  if (!grid.data) return <Waiting />
  return <Woven key={grid.data.place + grid.data.feature} grid={grid.data} />
}

/** How the grid is shown. */
const modes = [
  { id: '', title: 'Roles by features' },
  { id: 'side', title: 'Features by roles' },
  { id: 'anatomy', title: 'How features are built' },
] as const

function Woven({ grid }: { grid: Grid }) {
  const { where, query, show } = useWhere()
  // A file is looked at in the feature it belongs to.
  const asked = query.get('mode')
  const mode = modes.find((m) => m.id === (asked ?? (grid.feature ? 'anatomy' : '')))?.id ?? ''
  const words = query.get('name') ?? ''
  const box = useRef<HTMLDivElement>(null)
  const [width, setWidth] = useState(900)
  useWidth(box, setWidth)
  // What is picked here narrows every other view; -1 stands for nothing.
  const feature = where.feature || (grid.feature && mode === 'anatomy' ? grid.feature : '')
  const atRole = where.role ? grid.roles.indexOf(where.role) : -1
  const atFeature = feature ? grid.features.findIndex((f) => (f.name || '-') === feature) : -1
  const shown = fitting(grid, width, words)
  const cell = joined(grid)[atRole]?.[atFeature]
  return (
    <section className="weave listview">
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
      <Rests grid={grid} />
      <div className="filters">
        {modes.map((m) => (
          <button
            key={m.id}
            type="button"
            aria-pressed={mode === m.id}
            onClick={() => show({ mode: m.id || (grid.feature ? 'grid' : '') })}
          >
            {grid.by_position ? m.title.replace('Roles', 'Positions').replace('roles', 'positions') : m.title}
          </button>
        ))}
        <WordsField label="Name of a feature" placeholder="Feature" value={words} onWords={(name) => show({ name })} />
      </div>
      <div ref={box} className="fitted">
        {mode === 'anatomy' ? (
          <AnatomyGrid feature={feature} words={words} width={width} />
        ) : grid.cells.length === 0 ? (
          <div className="empty">
            <p className="say">No file here has both a role and a feature.</p>
          </div>
        ) : mode === 'side' ? (
          <SideGrid grid={grid} words={words} />
        ) : (
          <RolesGrid grid={shown.grid} whole={grid} atRole={atRole} feature={feature} columnWidth={shown.columnWidth} />
        )}
      </div>
      {mode === '' && shown.left > 0 && (
        <p className="faint">
          The {shown.grid.features.length} largest fit here; {counted(shown.left, 'smaller feature')}{' '}
          {shown.left === 1 ? 'is' : 'are'} a name away, or{' '}
          <button type="button" className="asLink" onClick={() => show({ mode: 'side' })}>
            see all of them, turned on its side
          </button>
          .
        </p>
      )}
      {grid.more > 0 && (
        <p className="faint">{counted(grid.more, 'smaller feature')} beyond these can be reached by search alone.</p>
      )}
      {mode === '' && grid.cells.length > 0 && (
        <p className="faint">
          Cells that lie in one folder are joined.
          {grid.features.some((f) => f.missing.length > 0) &&
            ' A hatched cell is a part that most features have and this one has not.'}
          {!grid.by_position && grid.seen < 1 && ' What is paler is assumed: nothing in the file says it.'}
        </p>
      )}
      {cell && mode !== 'anatomy' && <CellTold grid={grid} cell={cell.cell} />}
      {!cell && atFeature >= 0 && mode !== 'anatomy' && <FeatureTold key={feature} grid={grid} index={atFeature} />}
      <TaughtWords />
    </section>
  )
}

/** What the sentence on the cut rests on, and what the rows are. */
function Rests({ grid }: { grid: Grid }) {
  return (
    <>
      {grid.by_position && (
        <p>
          Of {Math.round(100 * grid.seen)} % of the code alone a role can be seen, so the rows are what is always true: where a
          file stands among the dependencies.
        </p>
      )}
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
    </>
  )
}
