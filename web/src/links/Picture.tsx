import { useMemo, useState, type ReactNode } from 'react'
import { useArrangement } from '../api/queries'
import type { Bundle, Drawing as Data } from '../api/types'
import { Drawing, type Export } from '../parts/drawing/Drawing'
import { towards } from '../parts/drawing/frame'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { useReview } from '../review/review'
import { keeping, movedBy, stepped } from './arrange'
import { OneBox } from './OneBox'
import { useLastPick } from './lastPick'
import { OneBundle } from './OneBundle'

interface Props {
  d: Data
  shown: readonly Bundle[]
  broken: ReadonlySet<string>
  chosen: Bundle | null
  open: readonly string[]
  exports: readonly Export[]
  list: ReactNode
  onChoose: (b: Bundle) => void
  onOpen: (to: string[]) => void
}

/** The parts in levels with their dependencies, arranged by hand where somebody did. */
export function Picture({ d, shown, broken, chosen, open, exports, list, onChoose, onOpen }: Props) {
  const { where, show, pick, go } = useWhere()
  const review = useReview()
  const arranged = useArrangement(where.id, d.place).data?.boxes ?? []
  const [drag, setDrag] = useState<{ path: string; from: number; dx: number } | null>(null)
  const put = (order: string[] | null) => order && void review.arrange(d.place, keeping(order, arranged), arranged)
  const near = useMemo(() => {
    const s = new Set<string>()
    for (const b of where.pick ? d.bundles : []) {
      if (b.from === where.pick) s.add(b.to)
      if (b.to === where.pick) s.add(b.from)
    }
    return s
  }, [d, where.pick])
  const boxes = useMemo(() => d.boxes.filter((b) => !b.rim), [d])
  const picked = boxes.find((b) => b.path === where.pick)
  const last = useLastPick(where.pick)
  const toggle = (path: string) =>
    onOpen(open.includes(path) ? open.filter((o) => o !== path && !o.startsWith(`${path}/`)) : [...open, path])
  const enter = (path: string, opens: boolean) => (opens ? toggle(path) : go({ at: path, view: 'code' }))
  const press = (e: React.KeyboardEvent): boolean => {
    if (e.ctrlKey || e.metaKey || e.altKey || boxes.length === 0) return false
    const walked = boxes.find((b) => b.path === last.now())
    if (e.shiftKey && walked && (e.key === 'ArrowLeft' || e.key === 'ArrowRight')) {
      put(stepped(d.boxes, walked.path, e.key === 'ArrowLeft' ? -1 : 1))
      return true
    }
    const at = walked ?? boxes[0]
    if (!at) return false
    if (e.key === 'Enter') {
      enter(at.path, at.opens)
      return true
    }
    if (!e.key.startsWith('Arrow')) return false
    const next = walked ? towards(boxes, at, e.key) : at
    if (next) {
      last.byKey(next.path)
      pick({ pick: next.path })
    }
    return true
  }
  const drop = () => {
    if (drag && Math.abs(drag.dx) > 8) put(movedBy(d.boxes, drag.path, drag.dx))
    setDrag(null)
  }
  return (
    <>
      <Drawing
        label={`Drawing of the dependencies of ${d.place === '.' ? 'the codebase' : d.place}; arrows move between parts, Enter opens one, Shift and an arrow move one in its row`}
        width={d.width}
        height={d.height}
        picked={picked}
        onKey={press}
        list={list}
        exports={exports}
        focus
      >
        {/* While a box is dragged the ground takes the pointer wherever it goes. */}
        {drag && (
          <rect
            x={-d.width}
            y={-d.height}
            width={3 * d.width}
            height={3 * d.height}
            fill="transparent"
            onPointerMove={(e) => setDrag({ ...drag, dx: e.clientX - drag.from })}
            onPointerUp={drop}
            onPointerLeave={drop}
          />
        )}
        {d.frames.map((f) => (
          <g key={f.name} className="frame">
            <rect x={f.x} y={f.y} width={f.w} height={f.h} rx="14" />
            <text x={f.x + 12} y={f.y + 15}>
              {f.name}
            </text>
          </g>
        ))}
        {shown.map((b) => (
          <OneBundle
            key={`${b.from}\n${b.to}\n${b.class}`}
            b={b}
            broken={broken.has(`${b.from}\n${b.to}`)}
            dim={picked !== undefined && b.from !== picked.path && b.to !== picked.path}
            near={picked !== undefined && (b.from === picked.path || b.to === picked.path)}
            chosen={chosen === b}
            onChoose={onChoose}
          />
        ))}
        {d.boxes.map((b) => (
          <OneBox
            key={b.path}
            b={b}
            picked={b === picked}
            dim={picked !== undefined && b !== picked && !near.has(b.path)}
            dx={drag?.path === b.path ? drag.dx : 0}
            onDrag={(x) => setDrag({ path: b.path, from: x, dx: 0 })}
            onDrop={drop}
            onPick={() => {
              last.otherwise()
              pick({ pick: b.path })
            }}
            onEnter={() => enter(b.path, b.opens)}
          />
        ))}
      </Drawing>
      {picked && (
        <p className="actions">
          <PlaceLink path={picked.path} />{' '}
          {picked.opens && (
            <button type="button" className="quiet" onClick={() => toggle(picked.path)}>
              Take apart
            </button>
          )}
          {picked.path !== d.focus && (
            <button type="button" className="quiet" onClick={() => show({ focus: picked.path })}>
              Only its neighbours
            </button>
          )}
          {open
            .filter((o) => picked.path.startsWith(`${o}/`))
            .map((o) => (
              <button key={o} type="button" className="quiet" onClick={() => toggle(o)}>
                Close {o}
              </button>
            ))}
        </p>
      )}
      {d.moved && (
        <p>
          <button
            type="button"
            className="quiet"
            title="Some parts stand where a hand put them"
            onClick={() => void review.arrange(d.place, [], arranged)}
          >
            Arrange anew
          </button>
        </p>
      )}
    </>
  )
}
