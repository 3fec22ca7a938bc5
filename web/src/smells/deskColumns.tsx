import type { Desk, Smell } from '../api/types'
import { Emphasised } from '../parts/Emphasised'
import type { Column } from '../parts/ledger/Ledger'
import { PlaceLink } from '../place/PlaceLink'
import { inkStep } from '../theme/ink'

interface Looks {
  titles: Desk['titles']
  marks: ReadonlySet<string>
  isRecorded: (s: Smell) => boolean
  onMark: (s: Smell) => void
  at: string
}

/** The columns of the list of smells. */
export const deskColumns = ({ titles, marks, isRecorded, onMark, at }: Looks): Column<Smell>[] => [
  {
    id: 'mark',
    title: <span className="hidden">marked</span>,
    width: '22px',
    cell: (s) => (
      <input
        type="checkbox"
        tabIndex={-1}
        checked={marks.has(s.id)}
        onChange={() => onMark(s)}
        aria-label={`mark ${s.message.replace(/\*/g, '')}`}
      />
    ),
  },
  {
    id: 'ink',
    title: <span className="hidden">strength</span>,
    hint: 'more ink, more trouble',
    width: '24px',
    cell: (s) => <span className={`ink k${inkStep(s.strength)}`} title={`strength ${s.strength.toFixed(2)} of 1`} />,
  },
  {
    id: 'message',
    title: 'what is the case',
    width: 'minmax(180px, 1.5fr)',
    cell: (s) => (
      <span className="cut" title={`${s.message.replace(/\*/g, '')} (${titles[s.rule]?.title ?? s.rule})`}>
        <Emphasised text={s.message} />
      </span>
    ),
  },
  {
    id: 'place',
    title: 'place',
    width: 'minmax(120px, 1.1fr)',
    cell: (s) =>
      s.path === at ? <small className="faint">here</small> : <PlaceLink path={s.path} line={s.line ?? 0} max={27} />,
  },
  {
    id: 'state',
    title: 'state',
    width: '66px',
    cell: (s) => <small>{s.silenced ? 'dismissed' : isRecorded(s) ? 'recorded' : ''}</small>,
  },
]
