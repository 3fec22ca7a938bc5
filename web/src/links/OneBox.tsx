import type { Box } from '../api/types'
import { counted, figure } from '../theme/ink'

/** One part of the drawing: a folder, a file or a package from outside. */
export function OneBox({
  b,
  picked,
  dim,
  dx,
  onDrag,
  onDrop,
  onPick,
  onEnter,
}: {
  b: Box
  picked: boolean
  dim: boolean
  dx: number
  onDrag: (x: number) => void
  onDrop: () => void
  onPick: () => void
  onEnter: () => void
}) {
  const state = [picked && 'picked', dim && 'dim', b.ring && 'ring', b.within && 'inner', b.rim && 'rim']
  return (
    <g
      className={`box ${state.filter(Boolean).join(' ')}`}
      transform={dx ? `translate(${dx} 0)` : undefined}
      onPointerDown={(e) => e.button === 0 && !b.rim && onDrag(e.clientX)}
      onPointerUp={onDrop}
      onClick={() => !b.rim && onPick()}
      onDoubleClick={() => !b.rim && onEnter()}
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
  )
}
