import type { Part } from '../api/types'
import type { Column } from '../parts/ledger/Ledger'
import { PlaceLink } from '../place/PlaceLink'
import { figure, shortPath } from '../theme/ink'
import { dutyMark, placeOf } from './list'

const amount = (id: string, title: string, hint: string, width: number, of: (p: Part) => number): Column<Part> => ({
  id,
  title,
  hint,
  width: `${width}px`,
  right: true,
  value: of,
  cell: (p) => (of(p) > 0 ? figure(of(p)) : <span className="faint">·</span>),
})

/** The columns of the table of parts. */
export const partColumns = (duties: readonly string[], at: string): Column<Part>[] => [
  {
    id: 'name',
    title: 'part',
    width: 'minmax(150px, 1.3fr)',
    value: (p) => p.name,
    cell: (p) => (
      <span className="cut" title={`${p.name}, ${p.kind}`}>
        <PlaceLink path={p.path} line={p.line} as={p.name} /> <small>{p.built || (p.kind === 'functions' ? '' : p.kind)}</small>
      </span>
    ),
  },
  {
    id: 'place',
    title: 'place',
    width: 'minmax(90px, 1fr)',
    cell: (p) => (
      <span className="cut mono faint" title={p.path}>
        {shortPath(placeOf(p, at), 19)}
      </span>
    ),
  },
  {
    id: 'duties',
    title: 'duties',
    hint: 'what it does; each leads to the first line that proves it',
    width: `${duties.length * 17 + 6}px`,
    value: (p) => p.duties.length,
    cell: (p) => <Duties p={p} all={duties} />,
  },
  amount('lines', 'lines', 'lines of its definitions', 52, (p) => p.lines),
  amount('takes', 'takes', 'parameters', 44, (p) => p.takes),
  amount('offers', 'offers', 'what others can call of it', 46, (p) => p.offers),
  amount('uses', 'uses', 'other parts that it calls, builds or draws', 42, (p) => p.uses),
  amount('users', 'users', 'definitions elsewhere that use it', 46, (p) => p.users),
  amount('twins', 'twins', 'places that are nearly the same', 46, (p) => p.twins),
  {
    id: 'tested',
    title: 'test',
    hint: 'whether a test reaches it, over calls that could be followed',
    width: '34px',
    cell: (p) => (p.tested ? '✓' : <span className="faint">·</span>),
  },
]

/** A path below a place, without its file where that says no more. */
function Duties({ p, all }: { p: Part; all: readonly string[] }) {
  return (
    <span className="dutyrow">
      {all.map((name) => {
        const d = p.duties.find((x) => x.name === name)
        return d ? (
          <span key={name} className="duty" title={`${name}: line ${d.line}${d.count > 1 ? ` and ${d.count - 1} more` : ''}`}>
            {dutyMark[name]}
          </span>
        ) : (
          <span key={name} className="duty none" aria-hidden="true" />
        )
      })}
    </span>
  )
}
