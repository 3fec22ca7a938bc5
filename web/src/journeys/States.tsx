import { useState } from 'react'
import { useStates } from '../api/queries'
import type { StateRow } from '../api/types'
import { Ledger, type Column } from '../parts/ledger/Ledger'
import { Failed, Waiting } from '../parts/Waiting'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'
import { OneHolder } from './OneHolder'
import { sayStates } from './states'

const idOf = (r: StateRow) => `${r.path}:${r.line}`

/** What can be in one of several named states, and how it goes from one to another. */
export function States() {
  const { where, query, show } = useWhere()
  const list = useStates(where)
  const [picked, setPicked] = useState('')
  const open = query.get('holder') ?? ''
  if (list.isError) return <Failed error={list.error} />
  if (!list.data) return <Waiting />
  const d = list.data
  if (d.rows.length === 0)
    return (
      <div className="empty">
        <p className="say">Nothing was found here that goes from one named state to another.</p>
        <p>
          States are told of enumerations and of unions of texts, where a field of that type is given another value or something
          is chosen by it.{d.still > 0 && ` ${counted(d.still, 'enumeration')} here never changes.`}
        </p>
      </div>
    )
  return (
    <>
      <p className="faint" role="status">
        {counted(d.rows.length, 'type')} of states
        {d.still > 0 && `; by ${counted(d.still, 'further enumeration')} nothing moves and nothing is chosen`}
        {d.left > 0 && `; ${figure(d.left)} were not looked at`}.
      </p>
      <Ledger
        label="States; arrows move, Enter opens one"
        columns={columns}
        rows={d.rows}
        idOf={idOf}
        picked={picked || open}
        onPick={setPicked}
        onOpen={(r) => show({ holder: open === idOf(r) ? '' : idOf(r) })}
        below={(r) => open === idOf(r) && <OneHolder path={r.path} line={r.line} />}
        focus
      />
    </>
  )
}

const columns: Column<StateRow>[] = [
  {
    id: 'name',
    title: 'what holds a state',
    width: 'minmax(140px, 0.8fr)',
    cell: (r) => <PlaceLink path={r.path} line={r.line} as={r.name} />,
  },
  {
    id: 'members',
    title: 'states',
    width: 'minmax(200px, 1.6fr)',
    cell: (r) => (
      <span className="cut" title={r.members.join(', ')}>
        {r.members.join(', ')}
      </span>
    ),
  },
  { id: 'seen', title: 'what was seen', width: '150px', cell: (r) => <small>{sayStates(r.moves, r.choices)}</small> },
  {
    id: 'lacks',
    title: 'what to look at',
    width: 'minmax(150px, 0.9fr)',
    cell: (r) =>
      r.lacks > 0 && (
        <small className="unsure">
          {counted(r.lacks, 'choice')} {r.lacks === 1 ? 'leaves' : 'leave'} a state out
        </small>
      ),
  },
]
