import { useState } from 'react'
import { useShapes } from '../api/queries'
import type { ShapeGroup } from '../api/types'
import { Ledger, type Column } from '../parts/ledger/Ledger'
import { ShapeTable } from '../parts/ShapeTable'
import { Failed, Waiting } from '../parts/Waiting'
import { WordsField } from '../parts/WordsField'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'

/** Types that are about the same thing: what the parts of a system pass to each other and keep. */
export function Shapes() {
  const { where, query, show } = useWhere()
  const words = query.get('words') ?? ''
  const open = query.get('shape') ?? ''
  const list = useShapes(where, words)
  const [picked, setPicked] = useState('')
  if (list.isError) return <Failed error={list.error} />
  if (!list.data) return <Waiting />
  const d = list.data
  return (
    <>
      <div className="filters">
        <WordsField label="Words" placeholder="part of a name or a path" value={words} onWords={(w) => show({ words: w })} />
        <span className="faint" role="status">
          {counted(d.found, 'thing')} that several types are about
          {d.groups.length < d.found && `; ${figure(d.groups.length)} are shown`}.
        </span>
      </div>
      {d.groups.length === 0 ? (
        <p className="say">No two types here are about the same thing by their names.</p>
      ) : (
        <Ledger
          label="Things; arrows move, Enter lays the types side by side"
          columns={columns}
          rows={d.groups}
          idOf={(g) => g.about}
          picked={picked || open}
          onPick={setPicked}
          onOpen={(g) => show({ shape: open === g.about ? '' : g.about })}
          below={(g) => open === g.about && g.shapes[0] && <ShapeTable path={g.shapes[0].path} line={g.shapes[0].line} />}
          focus
        />
      )}
    </>
  )
}

const columns: Column<ShapeGroup>[] = [
  { id: 'about', title: 'what they are about', width: 'minmax(120px, 0.6fr)', cell: (g) => <b>{g.about}</b> },
  { id: 'count', title: 'types', width: '56px', right: true, cell: (g) => figure(g.all) },
  {
    id: 'parts',
    title: 'modules',
    hint: 'modules that have one',
    width: '70px',
    right: true,
    cell: (g) => figure(g.parts),
  },
  {
    id: 'otherwise',
    title: 'not alike',
    hint: 'fields that the first has otherwise than the one most like it',
    width: '72px',
    right: true,
    cell: (g) => (g.otherwise > 0 ? <span className="unsure">{figure(g.otherwise)}</span> : g.otherwise === 0 ? '0' : ''),
  },
  {
    id: 'shapes',
    title: 'where they are defined',
    width: 'minmax(240px, 2fr)',
    cell: (g) => (
      <span className="cut">
        {g.shapes.slice(0, 5).map((s, i) => (
          <span key={`${s.path}:${s.line}`}>
            {i > 0 && ', '}
            <PlaceLink path={s.path} line={s.line} as={s.name} /> <small className="faint">{s.role}</small>
          </span>
        ))}
        {g.all > 5 && ` and ${figure(g.all - 5)} more`}
      </span>
    ),
  },
]
