import { useState } from 'react'
import { useTexts } from '../api/queries'
import type { TextRow } from '../api/types'
import { Ledger, type Column } from '../parts/ledger/Ledger'
import { WordsField } from '../parts/WordsField'
import { Failed, Waiting } from '../parts/Waiting'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'
import { sayValue, sayWrong, textKinds, wrongText } from './byName'
import { TextSets } from './TextSets'

/** What the code asks for by a name that no compiler looks at, and what holds it. */
export function ByName({ words }: { words: string }) {
  const { where, query, show } = useWhere()
  const kind = textKinds.find((k) => k.id === query.get('kind')) ?? textKinds[0]
  const wrong = query.get('wrong') ?? ''
  const set = query.get('set') ?? ''
  const open = query.get('name') ?? ''
  const list = useTexts(where, { kind: kind?.id ?? 'text', words, wrong, set, open })
  const [picked, setPicked] = useState('')
  if (list.isError) return <Failed error={list.error} />
  if (!list.data || !kind) return <Waiting />
  const d = list.data
  return (
    <>
      <div className="filters">
        {textKinds.map((k) => (
          <button
            key={k.id}
            type="button"
            aria-pressed={k.id === kind.id}
            onClick={() => show({ kind: k.id === 'text' ? '' : k.id, wrong: '', set: '', name: '' })}
          >
            {k.text} {figure(d.kinds[k.id] ?? 0)}
          </button>
        ))}
        <WordsField label="Words" placeholder="part of a name or a text" value={words} onWords={(w) => show({ words: w })} />
        {Object.entries(d.wrong).map(([w, n]) => (
          <button key={w} type="button" aria-pressed={w === wrong} onClick={() => show({ wrong: w === wrong ? '' : w })}>
            {wrongText(kind.id, w)} {figure(n)}
          </button>
        ))}
      </div>
      {kind.id === 'text' && d.sets.length > 0 && <TextSets sets={d.sets} set={set} />}
      {(d.kinds[kind.id] ?? 0) === 0 ? (
        <p className="say">{kind.none}</p>
      ) : (
        <>
          <p className="faint" role="status">
            {counted(d.found, 'name')}
            {d.rows.length < d.found && `; the first ${figure(d.rows.length)} are shown, words narrow the list`}
          </p>
          <Ledger
            label="Names; arrows move, Enter opens one"
            columns={columns[kind.id]}
            rows={d.rows}
            idOf={(r) => `${r.set} ${r.name}`}
            picked={picked}
            onPick={setPicked}
            onOpen={(r) => show({ name: open === r.name ? '' : r.name })}
            below={(r) => open === r.name && <Places r={r} />}
            focus
          />
        </>
      )}
    </>
  )
}

const name: Column<TextRow> = {
  id: 'name',
  title: 'name',
  width: 'minmax(150px, 1fr)',
  cell: (r) => (
    <span className="mono cut" title={r.name}>
      {r.name}
    </span>
  ),
}
const asked = (title: string): Column<TextRow> => ({
  id: 'asked',
  title,
  width: 'minmax(130px, 0.9fr)',
  cell: (r) =>
    r.asked.length === 0 && r.written.length > 0 ? (
      <>
        <First all={r.written} of={r.written.length} none="" /> <small className="faint">written</small>
      </>
    ) : (
      <First all={r.asked} of={r.asked_in} none={r.maybe ? 'put together when it runs' : '–'} />
    ),
})
const held = (title: string): Column<TextRow> => ({
  id: 'held',
  title,
  width: 'minmax(130px, 0.9fr)',
  cell: (r) => <First all={r.held} of={r.held_in} none="–" />,
})
const value = (title: string): Column<TextRow> => ({
  id: 'value',
  title,
  width: 'minmax(110px, 1fr)',
  cell: (r) => (
    <span className="cut" title={sayValue(r)}>
      {sayValue(r)}
    </span>
  ),
})
const wrong: Column<TextRow> = {
  id: 'wrong',
  title: 'what to look at',
  width: 'minmax(120px, 0.9fr)',
  cell: (r) => (
    <small className="unsure cut" title={sayWrong(r)}>
      {sayWrong(r)}
    </small>
  ),
}

const columns: Record<TextRow['kind'], Column<TextRow>[]> = {
  text: [name, value('text'), asked('asked for in'), wrong],
  setting: [name, asked('read in'), value('where it is not set'), held('given in'), wrong],
  route: [name, value('route'), held('named in'), asked('asked for in'), wrong],
}

/** The first of several places, and how many more. */
function First({ all, of, none }: { all: { path: string; line: number }[]; of: number; none: string }) {
  const first = all[0]
  if (!first) return <small className="faint">{none}</small>
  return (
    <>
      <PlaceLink path={first.path} line={first.line} max={20} />
      {of > 1 && (
        <small className="faint" title={counted(of, 'place')}>
          {' '}
          of {figure(of)}
        </small>
      )}
    </>
  )
}

/** All places of a name that was opened. */
function Places({ r }: { r: TextRow }) {
  return (
    <div className="named">
      {r.held.map((h) => (
        <p key={`${h.path} ${h.line}`}>
          {h.tongue && <b className="mono">{h.tongue} </b>}
          {h.value || <span className="faint">empty</span>} <PlaceLink path={h.path} line={h.line} max={40} />
        </p>
      ))}
      {r.asked.map((a) => (
        <p key={`${a.path} ${a.line}`}>
          asked for in <PlaceLink path={a.path} line={a.line} max={50} />
        </p>
      ))}
      {r.written.map((a) => (
        <p key={`${a.path} ${a.line}`}>
          written in <PlaceLink path={a.path} line={a.line} max={50} />, by no call that is known to ask for it
        </p>
      ))}
      {r.missing.length > 0 && <p className="unsure">missing in {r.missing.join(', ')}</p>}
    </div>
  )
}
