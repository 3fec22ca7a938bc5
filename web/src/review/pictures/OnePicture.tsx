import { useId, useRef, useState } from 'react'
import { Link } from 'react-router'
import type { PictureBox, ScreenPicture } from '../../api/types'
import { useSaving } from '../../parts/saving'
import { nameOf, stay, urlOf, useWhere } from '../../place/place'
import { useReview } from '../review'
import { boxOf, keyed, tieFor, type Rect, type Tie } from './boxes'

/** A picture with its boxes: each leads to the part it is tied to; a new one is drawn with the pointer or set by keys. */
export function OnePicture({ p, ties }: { p: ScreenPicture; ties: readonly Tie[] }) {
  const { where } = useWhere()
  const review = useReview()
  const { run, error, busy } = useSaving()
  const [from, setFrom] = useState<{ x: number; y: number } | null>(null)
  const [drawn, setDrawn] = useState<Rect | null>(null)
  const box = useRef<HTMLDivElement>(null)
  const save = (boxes: PictureBox[]) => run(review.changePicture(p, boxes), () => setDrawn(null))
  const point = (e: React.PointerEvent) => {
    const r = box.current?.getBoundingClientRect()
    return r ? { x: (e.clientX - r.left) / r.width, y: (e.clientY - r.top) / r.height } : { x: 0, y: 0 }
  }
  return (
    <figure className="screenpicture">
      <div
        ref={box}
        className="screen"
        style={{ aspectRatio: `${p.width} / ${p.height}`, maxWidth: p.width }}
        onPointerDown={(e) => e.button === 0 && e.target === e.currentTarget.firstChild && setFrom(point(e))}
        onPointerMove={(e) => from && setDrawn(boxOf(from, point(e)))}
        onPointerUp={() => setFrom(null)}
        onPointerLeave={() => setFrom(null)}
      >
        <img
          src={`/api/codebases/${where.id}/picture/${p.id}.png`}
          alt={`The screen of ${p.name}${p.by ? `, put here by ${p.by}` : ''}`}
          draggable={false}
        />
        {p.boxes.map((b, i) => (
          <Link
            key={`${b.path} ${b.name} ${i}`}
            className={b.y * p.height < 18 ? 'tied under mono' : 'tied mono'}
            style={shares(b)}
            title={`${b.name} in ${b.path}`}
            to={urlOf({ ...stay(where), view: 'code', at: b.path, line: b.line })}
          >
            <span>{b.name || nameOf(b.path)}</span>
          </Link>
        ))}
        {drawn && (
          <div
            className="tied drawn"
            style={shares(drawn)}
            tabIndex={0}
            role="group"
            aria-label="A new box; arrows move it, with Shift they size it"
            onKeyDown={(e) => {
              const next = keyed(drawn, e.key, e.shiftKey)
              if (!next) return
              e.preventDefault()
              e.stopPropagation()
              setDrawn(next)
            }}
          />
        )}
      </div>
      <figcaption>
        {drawn ? (
          <TieForm ties={ties} busy={busy} onTie={(t) => save([...p.boxes, { ...drawn, ...t }])} onLeave={() => setDrawn(null)} />
        ) : (
          <>
            <button type="button" className="quiet" onClick={() => setDrawn({ x: 0.35, y: 0.35, w: 0.3, h: 0.3 })}>
              Tie a box to a part
            </button>{' '}
            <span className="faint">or draw one over the picture.</span>{' '}
            {p.boxes.length > 0 && (
              <button type="button" className="quiet" disabled={busy} onClick={() => save(p.boxes.slice(0, -1))}>
                Untie {p.boxes[p.boxes.length - 1]?.name}
              </button>
            )}{' '}
            <button type="button" className="quiet" disabled={busy} onClick={() => run(review.changePicture(p, p.boxes, true))}>
              Take it away
            </button>
          </>
        )}
        {error && <p className="warn">{error.message}</p>}
      </figcaption>
    </figure>
  )
}

const shares = (r: Rect) => ({
  left: `${r.x * 100}%`,
  top: `${r.y * 100}%`,
  width: `${r.w * 100}%`,
  height: `${r.h * 100}%`,
})

/** Which part a box is tied to: typed or picked of those that are near. */
function TieForm({
  ties,
  busy,
  onTie,
  onLeave,
}: {
  ties: readonly Tie[]
  busy: boolean
  onTie: (t: Tie) => void
  onLeave: () => void
}) {
  const [typed, setTyped] = useState('')
  const list = useId()
  const tie = tieFor(typed, ties)
  return (
    <form
      className="inline"
      onSubmit={(e) => {
        e.preventDefault()
        if (tie) onTie(tie)
      }}
    >
      <label>
        The box is{' '}
        <input list={list} value={typed} autoFocus placeholder="the name of a part" onChange={(e) => setTyped(e.target.value)} />
      </label>
      <datalist id={list}>
        {ties.map((t) => (
          <option key={`${t.path} ${t.name}`} value={t.name}>
            {t.path}
          </option>
        ))}
      </datalist>{' '}
      <button type="submit" className="quiet" disabled={busy || !tie}>
        Tie it
      </button>{' '}
      <button type="button" className="quiet" onClick={onLeave}>
        Leave it
      </button>
      {typed.trim() && !tie && <small className="unsure"> no part of that name is used here</small>}
    </form>
  )
}
