import { useReach, useReachPicture } from '../api/queries'
import type { ReachPicture } from '../api/types'
import { Drawing } from '../parts/drawing/Drawing'
import { towardsInColumns } from '../parts/drawing/frame'
import { Failed, Waiting } from '../parts/Waiting'
import { PlaceLink } from '../place/PlaceLink'
import { handOutUrl, useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'
import { Modes } from './Modes'
import { useLastPick } from './lastPick'
import { saysReach, titleOf, type Way } from './reach'

/** What a change at the place may touch, step by step; or what comes along when it is taken elsewhere. */
export function ReachMode() {
  const { where, query, show } = useWhere()
  const way: Way = query.get('way') === 'along' ? 'along' : 'touched'
  const picture = useReachPicture(where, where.line, way)
  if (picture.isError) return <Failed error={picture.error} />
  if (!picture.data) return <Waiting />
  const x = picture.data
  return (
    <section className="links listview">
      <h1>Dependencies</h1>
      <Modes />
      <div className="filters" role="group" aria-label="Which way">
        {(['touched', 'along'] as const).map((w) => (
          <button key={w} type="button" aria-pressed={w === way} onClick={() => show({ way: w === 'along' ? 'along' : '' })}>
            {titleOf[w]}
          </button>
        ))}
      </div>
      <p className="faint" role="status">
        {saysReach(x, where.at === '.' ? 'the codebase' : where.at)}
      </p>
      {x.boxes.length > 1 && <Picture x={x} line={where.line} />}
      <Beside way={way} />
    </section>
  )
}

function Picture({ x, line }: { x: ReachPicture; line: number }) {
  const { where, pick, go } = useWhere()
  const boxes = x.boxes.filter((b) => b.path !== '')
  const picked = boxes.find((b) => b.path === where.pick) ?? undefined
  const near = new Set<number>()
  const at = picked ? x.boxes.indexOf(picked) : -1
  for (const t of at >= 0 ? x.ties : []) if (t.from === at || t.to === at) near.add(t.from).add(t.to)
  const enter = (path: string) => go({ at: path }, { mode: 'reach', way: x.way === 'along' ? 'along' : '' })
  const of = { at: where.at, line: line ? String(line) : '', way: x.way }
  const last = useLastPick(where.pick)
  const press = (e: React.KeyboardEvent): boolean => {
    if (e.ctrlKey || e.metaKey || e.altKey) return false
    const walked = boxes.find((b) => b.path === last.now())
    const from = walked ?? boxes[0]
    if (!from) return false
    if (e.key === 'Enter') {
      enter(from.path)
      return true
    }
    if (!e.key.startsWith('Arrow')) return false
    const next = walked ? towardsInColumns(boxes, from, e.key) : from
    if (!next) return true
    last.byKey(next.path)
    pick({ pick: next.path })
    return true
  }
  return (
    <Drawing
      label={`${titleOf[x.way === 'along' ? 'along' : 'touched']}, from ${where.at === '.' ? 'the codebase' : where.at}; arrows move, Enter looks from there`}
      width={x.width + 8}
      height={x.height + 8}
      picked={picked}
      onKey={press}
      exports={[
        { text: 'SVG', href: handOutUrl(where, 'reach.svg', of) },
        { text: 'Markdown', href: handOutUrl(where, 'reach.md', of) },
      ]}
      list={<AsList x={x} />}
      focus
    >
      {x.ties.map((t) => (
        <path
          key={`${t.from} ${t.to}`}
          className={at >= 0 ? (t.from === at || t.to === at ? 'reachtie near' : 'reachtie dim') : 'reachtie'}
          d={t.curve}
          strokeWidth={t.wide}
        >
          <title>{counted(t.count, 'link')}</title>
        </path>
      ))}
      {x.columns.map((c) => (
        <text key={c.x} className="reachhead" x={c.x} y={14}>
          {c.title}
          {c.count > 0 && `: ${figure(c.count)}`}
        </text>
      ))}
      {x.boxes.map((b, i) => (
        <g
          key={`${b.column} ${b.path} ${b.tests ? 'tests' : ''}`}
          className={`box reachbox${b.tests ? ' tests' : ''}${b.likely && i > 0 ? ' likely' : ''}${i === at ? ' picked' : ''}${at >= 0 && i !== at && !near.has(i) ? ' dim' : ''}`}
          onClick={() => {
            last.otherwise()
            if (b.path) pick({ pick: b.path })
          }}
          onDoubleClick={() => b.path && enter(b.path)}
        >
          <title>
            {`${b.path || b.name}: ${counted(b.count, x.what)}`}
            {b.likely && i > 0 ? ', may be' : ''}
          </title>
          <rect x={b.x} y={b.y} width={b.w} height={b.h} rx="2" />
          <text x={b.x + 8} y={b.y + 16}>
            {b.name}
          </text>
          <text x={b.x + 8} y={b.y + 31} className="many">
            {counted(b.count, x.what)}
            {b.likely && i > 0 && ', may be'}
          </text>
        </g>
      ))}
    </Drawing>
  )
}

/** The picture's equal for those who do not see it. */
function AsList({ x }: { x: ReachPicture }) {
  return (
    <ol className="levels">
      {x.columns.map((c, i) => (
        <li key={c.x}>
          {c.title}
          <ul>
            {x.boxes
              .filter((b) => b.column === i)
              .map((b) => (
                <li key={`${b.path} ${b.name}`}>
                  {b.path ? <PlaceLink path={b.path} /> : b.name} <small>{counted(b.count, x.what)}</small>
                  {b.tests && <small> of tests</small>}
                </li>
              ))}
          </ul>
        </li>
      ))}
    </ol>
  )
}

/** What stands in no picture: tests by name, what changed with it, and what would make less come along. */
function Beside({ way }: { way: Way }) {
  const { where } = useWhere()
  const x = useReach(where, where.line, true).data
  if (!x) return null
  return (
    <div className="partends">
      {way === 'along' && x.along.cuts.length > 0 && (
        <section>
          <h2>What would make that less</h2>
          <ul>
            {x.along.cuts.map((c) => (
              <li key={c.to}>
                {figure(c.saves)} fewer without <PlaceLink path={c.to} max={34} />, needed at{' '}
                <PlaceLink path={c.from} line={c.line} max={30} />
              </li>
            ))}
          </ul>
        </section>
      )}
      {way === 'touched' && (
        <section>
          <h2>Tests that reach it {figure(x.tests.length)}</h2>
          <ul>
            {x.tests.slice(0, 12).map((t) => (
              <li key={t.path + t.name}>
                <PlaceLink path={t.path} max={44} /> <small>{t.distance === 1 ? 'directly' : `over ${t.distance} steps`}</small>
              </li>
            ))}
            {x.tests.length > 12 && <li className="faint">{figure(x.tests.length - 12)} more</li>}
            {x.tests.length === 0 && <li className="faint">none was found</li>}
          </ul>
        </section>
      )}
      {x.together.length > 0 && (
        <section>
          <h2>Changed with it most often</h2>
          <ul>
            {x.together.map((t) => (
              <li key={t.path}>
                <PlaceLink path={t.path} max={44} /> <small>{counted(t.times, 'time')}</small>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  )
}
