import { useMemo, useState } from 'react'
import { useCharter, useDependencies } from '../api/queries'
import type { Bundle, CharterState, Dependencies as Data } from '../api/types'
import { Failed, Waiting } from '../parts/Waiting'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { counted } from '../theme/ink'
import { Behind } from './Behind'
import { BundleList } from './BundleList'
import { CharterPane } from './CharterPane'
import { Declared } from './Declared'
import { LinkFilters } from './LinkFilters'
import { Matrix } from './Matrix'
import { Packages } from './Packages'
import { Picture } from './Picture'
import { TryLink } from './TryLink'
import { Modes } from './Modes'
import { ReachMode } from './ReachMode'
import { Wiring } from './Wiring'
import { breachedPairs, exportQuery, lookFrom, passing, tooMuch } from './look'
import './links.css'

/** What needs what, in levels; the charter beside it. */
export default function Dependencies() {
  const { query } = useWhere()
  const mode = query.get('mode')
  return mode === 'wiring' ? <Wiring /> : mode === 'reach' ? <ReachMode /> : <Drawn />
}

function Drawn() {
  const { where, query } = useWhere()
  const look = useMemo(() => lookFrom(query), [query])
  const data = useDependencies(where, look.open, look)
  const charter = useCharter(where)
  const [tried, setTried] = useState<CharterState | null>(null)
  if (data.isError) return <Failed error={data.error} />
  if (!data.data) return <Waiting />
  return (
    <section className="links listview">
      <Shown data={data.data} charter={tried ?? charter.data ?? null} />
      <CharterPane state={charter.data ?? null} onTry={setTried} tried={tried} />
    </section>
  )
}

function Shown({ data, charter }: { data: Data; charter: CharterState | null }) {
  const { where, query, show } = useWhere()
  const d = data.drawing
  const look = useMemo(() => lookFrom(query), [query])
  const [chosen, setChosen] = useState<Bundle | null>(null)
  const broken = useMemo(() => breachedPairs(d, charter), [d, charter])
  const shown = useMemo(() => passing(d, look, broken), [d, look, broken])
  const place = d.place === '.' ? 'the codebase' : d.place
  const open = look.open ?? d.opened
  const picked = d.boxes.find((b) => b.path === where.pick && !b.rim)
  const asMatrix = look.as ? look.as === 'matrix' : tooMuch(d, shown)
  const exports = ['SVG', 'GraphML', 'DOT'].map((text) => ({
    text,
    href: `/api/codebases/${where.id}/export/dependencies.${text.toLowerCase()}?${exportQuery(where, look)}`,
  }))
  const list = <BundleList d={d} shown={shown} onChoose={setChosen} />
  const setOpen = (to: string[]) => show({ open: to.length > 0 ? to.map(encodeURIComponent).join(' ') : '.' })
  return (
    <>
      <h1>Dependencies</h1>
      <Modes />
      <p className="faint" role="status">
        {counted(d.boxes.length, 'part')} of {place} and {counted(shown.length, 'bundle')} between them, in{' '}
        {d.frames.length > 0
          ? `${counted(d.frames.length, 'ring')} ${charter?.charter ? 'of the charter' : 'around a core, as its pattern is'}`
          : counted(new Set(d.boxes.map((b) => b.level)).size, 'level')}
        {d.rings.length > 0 && (
          <>
            ; <span className="loud">{counted(d.rings.length, 'ring')}</span>
          </>
        )}
        {broken.size > 0 && (
          <>
            ; <span className="loud">{counted(broken.size, 'bundle')} against the charter</span>
          </>
        )}
        {shown.length < d.bundles.length && `; ${counted(d.bundles.length - shown.length, 'bundle')} filtered away`}
        {asMatrix && !look.as && '; more than an eye can follow as lines, so it is a matrix'}.
      </p>
      {d.focus && d.focus !== d.place && (
        <p>
          Only <PlaceLink path={d.focus} /> and its neighbours.{' '}
          <button type="button" className="quiet" onClick={() => show({ focus: '' })}>
            Show all parts
          </button>
        </p>
      )}
      {d.notes.map((n) => (
        <p key={n} className="warn">
          {n}
        </p>
      ))}
      <LinkFilters d={d} look={look} open={open} asMatrix={asMatrix} onOpen={setOpen} />
      {d.boxes.length === 0 ? (
        <div className="empty">
          <p className="say">There is no code here whose parts could depend on each other.</p>
        </div>
      ) : asMatrix ? (
        <Matrix d={d} shown={shown} broken={broken} list={list} onChoose={setChosen} />
      ) : (
        <Picture
          d={d}
          shown={shown}
          broken={broken}
          chosen={chosen}
          open={open}
          exports={exports}
          list={list}
          onChoose={setChosen}
          onOpen={setOpen}
        />
      )}
      {chosen && <Behind bundle={chosen} onClose={() => setChosen(null)} />}
      {d.rings.length > 0 && (
        <section>
          <h2>Rings</h2>
          {d.rings.map((r) => (
            <p key={r.members.join()}>
              {r.members.length} parts need each other: {r.members.slice(0, 6).join(', ')}
              {r.members.length > 6 && ` and ${r.members.length - 6} more`}. {r.exact ? 'Cutting' : 'Cutting at most'}{' '}
              {counted(r.break.length, 'dependency', 'dependencies')} opens it:{' '}
              {r.break.slice(0, 8).map((b, i) => (
                <span key={b.from + b.to} className="mono">
                  {i > 0 && ', '}
                  {b.from} → {b.to}
                </span>
              ))}
              {r.break.length > 8 && ` and ${r.break.length - 8} more`}
            </p>
          ))}
        </section>
      )}
      <TryLink key={where.pick} from={picked?.path ?? ''} />
      <Declared key={picked?.path} from={picked?.file ? picked.path : ''} />
      <Packages data={data} />
    </>
  )
}
