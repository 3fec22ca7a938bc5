import { useMemo, useRef, useState } from 'react'
import { useArrange, useArrangement, useBetween, useCharter, useDependencies } from '../api/queries'
import type { Bundle, CharterState, Dependencies as Data, Drawing } from '../api/types'
import { inField } from '../frame/gate'
import { Failed, Waiting } from '../frame/Waiting'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'
import { CharterPane } from './CharterPane'
import { keeping, movedBy, stepped } from './arrange'
import { Declared } from './Declared'
import { Packages } from './Packages'
import { savePicture } from './picture'

/** From so many bundles on they are drawn fine, so that boxes and what is loud stand out. */
const crowded = 160

const words: Record<string, string> = {
  code: 'imports',
  lazy: 'imports when needed',
  rendered: 'components drawn',
  http: 'requests to routes',
  message: 'messages by name',
  'by name': 'templates, routes and settings by name',
  declared: 'declared by the lead',
  outside: 'packages from outside',
}

/** What needs what, in levels; the charter beside it. */
export default function Dependencies() {
  const { where, query } = useWhere()
  // "." stands for nothing opened; no list at all leaves it to the drawing.
  const asked = query.get('open')
  const open =
    asked === null
      ? null
      : asked
          .split(' ')
          .filter((o) => o && o !== '.')
          .map(decodeURIComponent)
  const data = useDependencies(where, open, {
    tests: query.get('tests') === '1',
    rim: query.get('rim') === '1',
    focus: query.get('focus') ?? '',
  })
  const charter = useCharter(where)
  const [tried, setTried] = useState<CharterState | null>(null)
  if (data.isError) return <Failed error={data.error} />
  if (!data.data) return <Waiting />
  return (
    <section className="links findings">
      <Picture
        data={data.data}
        open={open ?? data.data.drawing.opened}
        auto={open === null}
        charter={tried ?? charter.data ?? null}
      />
      <CharterPane state={charter.data ?? null} onTry={setTried} tried={tried} />
    </section>
  )
}

function Picture({ data, open, auto, charter }: { data: Data; open: string[]; auto: boolean; charter: CharterState | null }) {
  const { where, query, show, pick, go } = useWhere()
  const d = data.drawing
  const off = new Set((query.get('off') ?? '').split(',').filter(Boolean))
  const [chosen, setChosen] = useState<Bundle | null>(null)
  const [asList, setAsList] = useState(false)
  const svg = useRef<SVGSVGElement>(null)
  const arrange = useArrange(where.id)
  const arranged = useArrangement(where.id, d.place)
  // What was arranged before each move, so that moves can be taken back.
  const [undo, setUndo] = useState<string[][]>([])
  const [drag, setDrag] = useState<{ path: string; from: number; dx: number } | null>(null)
  const put = (order: string[] | null) => {
    if (!order) return
    const before = arranged.data?.boxes ?? []
    setUndo([...undo, before])
    arrange.mutate({ place: d.place, boxes: keeping(order, before) })
  }
  const back = () => {
    const last = undo[undo.length - 1]
    if (!last) return
    setUndo(undo.slice(0, -1))
    arrange.mutate({ place: d.place, boxes: last })
  }
  const focus = query.get('focus') ?? ''
  const broken = useMemo(() => breachedPairs(d, charter), [d, charter])
  const near = useMemo(() => {
    const s = new Set<string>()
    if (!where.pick) return s
    for (const b of d.bundles) {
      if (b.from === where.pick) s.add(b.to)
      if (b.to === where.pick) s.add(b.from)
    }
    return s
  }, [d, where.pick])
  const picked = d.boxes.some((b) => b.path === where.pick && !b.rim) ? where.pick : ''
  const setOpen = (list: string[]) => show({ open: list.length > 0 ? list.map(encodeURIComponent).join(' ') : '.' })
  const toggle = (path: string) =>
    setOpen(open.includes(path) ? open.filter((o) => o !== path && !o.startsWith(`${path}/`)) : [...open, path])
  const shown = d.bundles.filter((b) => !off.has(b.class))
  const press = (e: React.KeyboardEvent) => {
    if (e.ctrlKey || e.metaKey || e.altKey || inField(e.target) || d.boxes.length === 0) return
    if (e.shiftKey && picked && (e.key === 'ArrowLeft' || e.key === 'ArrowRight')) {
      put(stepped(d.boxes, picked, e.key === 'ArrowLeft' ? -1 : 1))
      e.preventDefault()
      return
    }
    const at = d.boxes.find((b) => b.path === picked) ?? d.boxes.find((b) => !b.rim)
    if (!at) return
    if (e.key === 'Enter') {
      if (at.opens) toggle(at.path)
      else go({ at: at.path, view: 'code' })
      e.preventDefault()
      return
    }
    const way = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key]
    if (!way) return
    e.preventDefault()
    if (!picked) return pick({ pick: at.path })
    // The nearest box that lies that way.
    const next = d.boxes
      .filter((b) => !b.rim)
      .filter((b) =>
        way[0]
          ? Math.abs(b.y - at.y) < 2 && Math.sign(b.x - at.x) === way[0]
          : Math.sign(b.y - at.y) === way[1] && Math.abs(b.y - at.y) > 2,
      )
      .sort((a, b) => dist(a, at) - dist(b, at))[0]
    if (next) pick({ pick: next.path })
  }
  const place = d.place === '.' ? 'the codebase' : d.place
  const narrowed = [
    focus && `&focus=${encodeURIComponent(focus)}`,
    where.feature && `&feature=${encodeURIComponent(where.feature)}`,
    where.role && `&role=${encodeURIComponent(where.role)}`,
    query.get('tests') === '1' && '&tests=true',
    query.get('rim') === '1' && '&rim=true',
  ]
  const query2 = `${narrowed.filter(Boolean).join('')}${where.at === '.' ? '' : `&at=${encodeURIComponent(where.at)}`}${auto ? '&auto=true' : open.map((o) => `&open=${encodeURIComponent(o)}`).join('')}`
  const link = (file: string) => `/api/codebases/${where.id}/export/${file}?survey=${where.survey || ''}${query2}`
  return (
    <>
      <h1>Dependencies</h1>
      <p className="faint" role="status">
        {counted(d.boxes.length, 'part')} of {place} and {counted(shown.length, 'bundle')} between them, in{' '}
        {d.frames.length > 0
          ? counted(d.frames.length, 'ring of the charter', 'rings of the charter')
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
        .
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
      <div className="filters">
        {d.classes.map((c) => (
          <label key={c} className="check" title={words[c]}>
            <input
              type="checkbox"
              checked={!off.has(c)}
              onChange={() => {
                if (!off.delete(c)) off.add(c)
                show({ off: [...off].join(',') })
              }}
            />
            <svg width="26" height="8" aria-hidden="true">
              <path d="M0 4h26" className={`bundle ${klass(c)}`} strokeWidth="1.6" />
            </svg>
            {c}
          </label>
        ))}
        <label className="check">
          <input
            type="checkbox"
            checked={query.get('tests') === '1'}
            onChange={(e) => show({ tests: e.target.checked ? '1' : '' })}
          />
          tests
        </label>
        <label className="check" title="packages from outside, as a last row">
          <input
            type="checkbox"
            checked={query.get('rim') === '1'}
            onChange={(e) => show({ rim: e.target.checked ? '1' : '' })}
          />
          packages
        </label>
        {d.boxes.some((b) => b.opens) && (
          <button
            type="button"
            className="quiet"
            title="takes every folder apart by one step"
            onClick={() => setOpen([...new Set([...open, ...d.boxes.filter((b) => b.opens).map((b) => b.path)])])}
          >
            Deeper
          </button>
        )}
        {open.length > 0 && (
          <button type="button" className="quiet" onClick={() => setOpen([])}>
            Close what is opened
          </button>
        )}
        {undo.length > 0 && (
          <button type="button" className="quiet" onClick={back}>
            Take the move back
          </button>
        )}
        {d.moved && (
          <button
            type="button"
            className="quiet"
            title="Some parts stand where a hand put them"
            onClick={() => {
              setUndo([...undo, arranged.data?.boxes ?? []])
              arrange.mutate({ place: d.place, boxes: [] })
            }}
          >
            Arrange anew
          </button>
        )}
        <button type="button" className="quiet" aria-pressed={asList} onClick={() => setAsList(!asList)}>
          {asList ? 'As a drawing' : 'As a list'}
        </button>
        <span className="exports">
          <a href={link('dependencies.svg')} download>
            SVG
          </a>
          <button type="button" className="asLink" onClick={() => svg.current && void savePicture(link('dependencies.svg'))}>
            PNG
          </button>
          <a href={link('dependencies.graphml')} download>
            GraphML
          </a>
          <a href={link('dependencies.dot')} download>
            DOT
          </a>
        </span>
      </div>
      {d.boxes.length === 0 ? (
        <div className="empty">
          <p className="say">There is no code here whose parts could depend on each other.</p>
        </div>
      ) : asList ? (
        <List d={d} shown={shown} onChoose={setChosen} />
      ) : (
        <div
          className="drawing"
          tabIndex={0}
          onKeyDown={press}
          role="group"
          aria-label="Drawing; arrows move between parts, Enter opens one, Shift and an arrow move one in its row"
        >
          <svg
            className={shown.length > crowded ? 'dense' : undefined}
            ref={svg}
            viewBox={`0 0 ${d.width} ${d.height}`}
            width={d.width}
            height={d.height}
            role="img"
            aria-label={`Dependencies of ${place}`}
            onPointerMove={(e) => drag && setDrag({ ...drag, dx: e.clientX - drag.from })}
            onPointerUp={() => {
              if (drag && Math.abs(drag.dx) > 8) put(movedBy(d.boxes, drag.path, drag.dx))
              setDrag(null)
            }}
            onPointerLeave={() => setDrag(null)}
          >
            {d.frames.map((f) => (
              <g key={f.name} className="frame">
                <rect x={f.x} y={f.y} width={f.w} height={f.h} rx="14" />
                <text x={f.x + 12} y={f.y + 15}>
                  {f.name}
                </text>
              </g>
            ))}
            {shown.map((b) => {
              const key = `${b.from}\n${b.to}`
              const dim = picked !== '' && b.from !== picked && b.to !== picked
              const state = `${broken.has(key) ? 'broken' : ''} ${b.up ? 'up' : ''} ${dim ? 'dim' : ''} ${chosen === b ? 'chosen' : ''}`
              return (
                <g key={key + b.class} className={`line ${klass(b.class)} ${state}`} onClick={() => setChosen(b)}>
                  <title>{`${b.from} needs ${b.to}: ${b.count} ${b.class}${b.cut ? ', the cut that opens the ring' : ''}`}</title>
                  <path d={b.curve} className="hit" />
                  {broken.has(key) ? (
                    // Against the charter: a double line.
                    <>
                      <path d={b.curve} className="bundle" strokeWidth={b.wide + 3} />
                      <path d={b.curve} className="inner" strokeWidth={b.wide} />
                    </>
                  ) : (
                    <path d={b.curve} className={`bundle ${klass(b.class)}`} strokeWidth={b.wide} />
                  )}
                  <path d={b.tip} className="tip" />
                </g>
              )
            })}
            {d.boxes.map((b) => (
              <g
                key={b.path}
                className={`box ${b.path === picked ? 'picked' : ''} ${picked && b.path !== picked && !near.has(b.path) ? 'dim' : ''} ${b.ring ? 'ring' : ''} ${b.within ? 'inner' : ''} ${b.rim ? 'rim' : ''}`}
                transform={drag?.path === b.path ? `translate(${drag.dx} 0)` : undefined}
                onPointerDown={(e) => e.button === 0 && setDrag({ path: b.path, from: e.clientX, dx: 0 })}
                onClick={() => !b.rim && pick({ pick: b.path })}
                onDoubleClick={() => !b.rim && (b.opens ? toggle(b.path) : go({ at: b.path, view: 'code' }))}
              >
                <title>
                  {b.rim
                    ? `${b.name}, a package from outside, used by ${counted(b.files, 'file')}`
                    : `${b.path}: ${counted(b.files, 'file')}, ${figure(b.lines)} lines`}
                </title>
                <rect x={b.x} y={b.y} width={b.w} height={b.h} rx="2" />
                <text x={b.x + b.w / 2} y={b.y + 19} textAnchor="middle">
                  {b.name}
                </text>
              </g>
            ))}
          </svg>
        </div>
      )}
      {picked && (
        <p className="actions">
          <PlaceLink path={picked} />{' '}
          {d.boxes.find((b) => b.path === picked)?.opens && (
            <button type="button" className="quiet" onClick={() => toggle(picked)}>
              Take apart
            </button>
          )}
          {picked !== d.focus && (
            <button type="button" className="quiet" onClick={() => show({ focus: picked })}>
              Only its neighbours
            </button>
          )}
          {open
            .filter((o) => picked.startsWith(`${o}/`))
            .map((o) => (
              <button key={o} type="button" className="quiet" onClick={() => toggle(o)}>
                Close {o}
              </button>
            ))}
        </p>
      )}
      {chosen && <Behind bundle={chosen} onClose={() => setChosen(null)} />}
      {d.rings.length > 0 && (
        <section>
          <h2>Rings</h2>
          {d.rings.map((r) => (
            <p key={r.members.join()}>
              {r.members.length} parts need each other: {r.members.slice(0, 6).join(', ')}
              {r.members.length > 6 && ' …'}. {r.exact ? 'Cutting' : 'Cutting at most'}{' '}
              {counted(r.break.length, 'dependency', 'dependencies')} opens it:{' '}
              {r.break.slice(0, 8).map((b, i) => (
                <span key={b.from + b.to} className="mono">
                  {i > 0 && ', '}
                  {b.from} → {b.to}
                </span>
              ))}
            </p>
          ))}
        </section>
      )}
      <Declared key={picked} from={d.boxes.find((b) => b.path === picked)?.file ? picked : ''} />
      <Packages data={data} />
    </>
  )
}

const dist = (a: { x: number; y: number; w: number }, b: { x: number; y: number; w: number }) =>
  Math.abs(a.x + a.w / 2 - b.x - b.w / 2) + 3 * Math.abs(a.y - b.y)

const klass = (c: string) => c.replace(' ', '-')

/** The bundles that hold a dependency against the charter. */
function breachedPairs(d: Drawing, charter: CharterState | null): Set<string> {
  const out = new Set<string>()
  if (!charter) return out
  const within = (place: string, p: string) => p === place || p.startsWith(`${place}/`)
  for (const x of charter.breaches) {
    const a = d.boxes.find((b) => within(b.path, x.from))
    const c = d.boxes.find((b) => within(b.path, x.to))
    if (a && c && a !== c) out.add(`${a.path}\n${c.path}`)
  }
  return out
}

/** The drawing's equal for those who do not see it. */
function List({ d, shown, onChoose }: { d: Drawing; shown: Bundle[]; onChoose: (b: Bundle) => void }) {
  const levels = [...new Set(d.boxes.map((b) => b.level))].sort((a, b) => a - b)
  return (
    <ol className="levels">
      {levels.map((l) => (
        <li key={l}>
          <ul>
            {d.boxes
              .filter((b) => b.level === l)
              .map((b) => (
                <li key={b.path}>
                  <PlaceLink path={b.path} />{' '}
                  {shown
                    .filter((x) => x.from === b.path)
                    .map((x, i) => (
                      <span key={x.to + x.class}>
                        {i === 0 ? 'needs ' : ', '}
                        <button type="button" className="asLink" onClick={() => onChoose(x)}>
                          {x.to} ({x.count} {x.class})
                        </button>
                      </span>
                    ))}
                </li>
              ))}
          </ul>
        </li>
      ))}
    </ol>
  )
}

/** The lines that a bundle stands for. */
function Behind({ bundle, onClose }: { bundle: Bundle; onClose: () => void }) {
  const { where } = useWhere()
  const links = useBetween(where, bundle)
  return (
    <section className="told">
      <h2>
        <span className="mono">{bundle.from}</span> needs <span className="mono">{bundle.to}</span>{' '}
        <button type="button" className="quiet" onClick={onClose}>
          Close
        </button>
      </h2>
      {links.isError && <Failed error={links.error} />}
      {links.data && (
        <ul className="places">
          {links.data.map((l) => (
            <li key={l.from + l.line + l.to + l.kind}>
              <PlaceLink path={l.from} line={l.line} max={46} /> <span className="mono">{l.text}</span> <small>{l.kind}</small>
              {!l.sure && <small className="unsure"> not sure</small>}
            </li>
          ))}
        </ul>
      )}
    </section>
  )
}
