import { useMemo, useState } from 'react'
import { useParts } from '../api/queries'
import type { Part, PartList } from '../api/types'
import { Ledger } from '../parts/ledger/Ledger'
import { WordsField } from '../parts/WordsField'
import { Failed, Waiting } from '../parts/Waiting'
import { useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'
import { askedFrom, dutyMark, kindNames, narrowings, sortingOf, sortText, type AskedParts } from './list'
import { OnePart } from './OnePart'
import { partColumns } from './partColumns'
import { Shapes } from './Shapes'
import './parts.css'

const first = 150
const most = 500

const idOf = (p: Part) => `${p.path} ${p.name}`

/** What a place is built of: components, classes, files of functions, with the duties of each. */
export default function Parts() {
  const { where, query, show } = useWhere()
  const shapes = query.get('side') === 'shapes'
  return (
    <section className="parts listview fills">
      <h1>Parts{where.at === '.' ? '' : ` of ${where.at}`}</h1>
      <div className="tabs" role="tablist" aria-label="What is listed">
        {(['', 'shapes'] as const).map((side) => (
          <button
            key={side}
            type="button"
            role="tab"
            aria-selected={shapes === (side !== '')}
            onClick={() => show({ side, words: '' })}
          >
            {side === '' ? 'Parts' : 'Types about one thing'}
          </button>
        ))}
      </div>
      {shapes ? <Shapes /> : <PartsHere />}
    </section>
  )
}

function PartsHere() {
  const { where, query } = useWhere()
  const asked = useMemo(() => askedFrom(query), [query])
  const [count, setCount] = useState(first)
  const list = useParts(where, where, asked, count)
  if (list.isError) return <Failed error={list.error} />
  if (!list.data) return <Waiting />
  const d = list.data
  if (d.all === 0)
    return (
      <div className="empty">
        <p className="say">No part was found here.</p>
        <p>Here stand components, classes, types with methods, and files of functions, of the code that is judged.</p>
      </div>
    )
  return (
    <>
      <PartFilters d={d} asked={asked} />
      <p className="faint" role="status">
        {d.count < d.all ? `${figure(d.count)} of ${counted(d.all, 'part')}` : counted(d.all, 'part')}
        {asked.sort === 'weight' && ', the largest and most used first'}
        {d.parts.length < d.count && `; ${figure(d.parts.length)} are shown`}.{' '}
        {d.parts.length < d.count && count < most && (
          <button type="button" className="quiet" onClick={() => setCount(most)}>
            show more
          </button>
        )}
        {d.parts.length < d.count && count >= most && 'Narrow the list for the rest.'}
      </p>
      <p className="legend marks">
        {d.duties.map((name) => (
          <span key={name}>
            <b className="duty">{dutyMark[name]}</b> {name}
          </span>
        ))}
      </p>
      <PartLedger d={d} asked={asked} />
    </>
  )
}

function PartFilters({ d, asked }: { d: PartList; asked: AskedParts }) {
  const { show } = useWhere()
  const kinds = kindNames.filter(([k]) => d.kinds[k])
  return (
    <div className="filters">
      {kinds.length > 1 && (
        <select aria-label="Kind of part" value={asked.kind} onChange={(e) => show({ kind: e.target.value })}>
          <option value="">every kind</option>
          {kinds.map(([k, text]) => (
            <option key={k} value={k}>
              {text} ({figure(d.kinds[k] ?? 0)})
            </option>
          ))}
        </select>
      )}
      {narrowings.map((n) => (
        <button
          key={n.id}
          type="button"
          title={n.hint}
          aria-pressed={asked.only === n.id}
          onClick={() => show({ only: asked.only === n.id ? '' : n.id })}
        >
          {n.text} <small>{figure(d.only[n.id] ?? 0)}</small>
        </button>
      ))}
      <WordsField
        label="Words"
        placeholder="words of a name or a path"
        value={asked.words}
        onWords={(words) => show({ words })}
      />
    </div>
  )
}

function PartLedger({ d, asked }: { d: PartList; asked: AskedParts }) {
  const { where, query, show, pick } = useWhere()
  const [picked, setPicked] = useState('')
  const open = query.get('part') ?? ''
  const columns = useMemo(() => partColumns(d.duties, where.at), [d.duties, where.at])
  if (d.count === 0) return <p className="faint">No part fits this filter.</p>
  return (
    <Ledger
      label="Parts; arrows move, Enter opens"
      columns={columns}
      rows={d.parts}
      idOf={idOf}
      picked={picked || open}
      onPick={(id, p) => {
        setPicked(id)
        pick({ pick: p.path, line: p.line })
      }}
      onOpen={(p) => show({ part: open === idOf(p) ? '' : idOf(p) })}
      sorted
      sorting={sortingOf(asked)}
      onSort={(s) => show({ sort: sortText(s) })}
      below={(p) => open === idOf(p) && <OnePart p={p} />}
      focus
    />
  )
}
