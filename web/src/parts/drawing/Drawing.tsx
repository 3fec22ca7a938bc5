import { useRef, useState, type ReactNode } from 'react'
import { inField, useEntering } from '../gate'
import { useWidth } from '../width'
import { fit, pan, reveal, zoom, type Sight } from './frame'
import { savePicture } from './picture'
import './drawing.css'

/** Ways a drawing goes out as a file. */
export interface Export {
  text: string
  href: string
}

export interface DrawingProps {
  /** What it is a drawing of, and what keys do in it. */
  label: string
  width: number
  height: number
  /** As high as this at most, in px. */
  most?: number
  /** The rectangle of what is picked, which is brought into sight. */
  picked?: Sight
  /** Acts on a key; it reports whether it was taken. */
  onKey?: (e: React.KeyboardEvent) => boolean
  /** The same as a list. */
  list: ReactNode
  exports?: readonly Export[]
  /** Whether it takes the focus when its view opens. */
  focus?: boolean
  className?: string
  children: ReactNode
}

/** The frame of every drawing that can be moved in: dragged, zoomed, walked by keys, read as a list, handed out. */
export function Drawing(p: DrawingProps) {
  const box = useRef<HTMLDivElement>(null)
  useEntering(p.focus)
  const [width, setWidth] = useState(0)
  const [asList, setAsList] = useState(false)
  const [own, setOwn] = useState<Sight | null>(null)
  const [drag, setDrag] = useState<{ x: number; y: number; sight: Sight } | null>(null)
  useWidth(box, setWidth, asList)
  const scale = Math.min(1, width / Math.max(1, p.width))
  const size = { w: Math.max(1, width), h: Math.max(60, Math.min(p.most ?? 900, p.height * scale)) }
  const drawing = { w: p.width, h: p.height }
  const sight = own ?? fit(drawing, size)
  // What is newly picked comes into sight; the sight is left alone otherwise.
  const [seen, setSeen] = useState(p.picked)
  if (p.picked?.x !== seen?.x || p.picked?.y !== seen?.y) {
    setSeen(p.picked)
    if (p.picked && own) setOwn(reveal(own, p.picked))
  }
  const closer = (factor: number, at = { x: sight.x + sight.w / 2, y: sight.y + sight.h / 2 }) =>
    setOwn(zoom(sight, size, factor, at))
  const press = (e: React.KeyboardEvent) => {
    if (e.defaultPrevented || inField(e.target)) return
    if (p.onKey?.(e)) e.preventDefault()
    else if (!e.ctrlKey && !e.metaKey && !e.altKey && (e.key === '+' || e.key === '-')) {
      e.preventDefault()
      closer(e.key === '+' ? 1.25 : 0.8)
    }
  }
  return (
    <figure className={`drawn ${p.className ?? ''}`}>
      <p className="drawtools">
        {!asList && (
          <>
            <button type="button" className="quiet" aria-label="Closer" title="closer, also +" onClick={() => closer(1.25)}>
              +
            </button>
            <button type="button" className="quiet" aria-label="Farther" title="farther, also −" onClick={() => closer(0.8)}>
              −
            </button>
            <button type="button" className="quiet" disabled={own === null} onClick={() => setOwn(null)}>
              all of it
            </button>
          </>
        )}
        <button type="button" className="quiet" aria-pressed={asList} onClick={() => setAsList(!asList)}>
          {asList ? 'as a drawing' : 'as a list'}
        </button>
        {p.exports?.map((x) => (
          <a key={x.text} href={x.href} download>
            {x.text}
          </a>
        ))}
        {p.exports?.[0]?.text === 'SVG' && (
          <button type="button" className="asLink" onClick={() => void savePicture(p.exports?.[0]?.href ?? '', 'drawing.png')}>
            PNG
          </button>
        )}
      </p>
      {asList ? (
        p.list
      ) : (
        <div
          ref={box}
          className="drawing"
          tabIndex={0}
          role="group"
          data-focus={p.focus ? '' : undefined}
          aria-label={p.label}
          onKeyDown={press}
        >
          <svg
            viewBox={`${sight.x} ${sight.y} ${sight.w} ${sight.h}`}
            width={size.w}
            height={size.h}
            onWheel={(e) => {
              if (!e.ctrlKey && !e.metaKey) return
              const r = e.currentTarget.getBoundingClientRect()
              const at = {
                x: sight.x + ((e.clientX - r.left) * sight.w) / size.w,
                y: sight.y + ((e.clientY - r.top) * sight.h) / size.h,
              }
              closer(e.deltaY < 0 ? 1.15 : 0.87, at)
            }}
            onPointerDown={(e) => {
              // Only the ground is dragged: what stands on it has its own hands.
              if (e.button === 0 && e.target === e.currentTarget) setDrag({ x: e.clientX, y: e.clientY, sight })
            }}
            onPointerMove={(e) => drag && setOwn(pan(drag.sight, size, drawing, e.clientX - drag.x, e.clientY - drag.y))}
            onPointerUp={() => setDrag(null)}
            onPointerLeave={() => setDrag(null)}
          >
            {p.children}
          </svg>
        </div>
      )}
    </figure>
  )
}
