import type { Column } from '../parts/ledger/Ledger'
import { PlaceLink } from '../place/PlaceLink'
import { Sign } from '../review/Sign'
import type { Row } from './list'

/** The columns of the list of findings; only in the order set by hand can they be moved. */
export function columns(
  movable: boolean,
  onMove: (r: Row, step: 1 | -1) => void,
  onOpen: (r: Row) => void,
  count: number,
  open: number,
): Column<Row>[] {
  return [
    { id: 'kind', title: <span className="hidden">kind</span>, width: '20px', cell: (r) => r.f && <Sign kind={r.f.kind} /> },
    {
      id: 'title',
      title: 'finding',
      width: 'minmax(180px, 1fr)',
      cell: (r) =>
        r.f ? (
          <button
            type="button"
            className="asText"
            tabIndex={-1}
            aria-expanded={r.f.id === open}
            title={r.f.title}
            onClick={() => onOpen(r)}
          >
            {r.f.title}
          </button>
        ) : (
          <span className="faint">…</span>
        ),
    },
    {
      id: 'place',
      title: 'place',
      width: '208px',
      cell: (r) => r.f && <PlaceLink path={r.f.path} line={r.f.line} end={r.f.end_line} max={r.f.line > 0 ? 24 : 28} />,
    },
    { id: 'who', title: 'for', width: 'minmax(60px, 108px)', cell: (r) => r.f?.assignee },
    {
      id: 'labels',
      title: 'labels',
      width: 'minmax(0, 96px)',
      cell: (r) => <span className="flabels">{r.f?.labels.map((l) => `#${l}`).join(' ')}</span>,
    },
    {
      id: 'state',
      title: 'state',
      width: '52px',
      cell: (r) => r.f && <span className={`fstate s-${r.f.state}`}>{r.f.state}</span>,
    },
    {
      id: 'move',
      title: <span className="hidden">order</span>,
      width: '34px',
      cell: (r) =>
        movable && (
          <span className="fmove">
            <button type="button" tabIndex={-1} aria-label="Earlier" disabled={r.index === 0} onClick={() => onMove(r, -1)}>
              ↑
            </button>
            <button type="button" tabIndex={-1} aria-label="Later" disabled={r.index === count - 1} onClick={() => onMove(r, 1)}>
              ↓
            </button>
          </span>
        ),
    },
  ]
}
