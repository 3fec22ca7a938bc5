import { useMemo, useState } from 'react'
import type { Names, Word } from '../api/types'
import { Ledger, type Column } from '../parts/ledger/Ledger'
import { sortingFrom, sortingText } from '../parts/ledger/moves'
import { WordsField } from '../parts/WordsField'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { figure } from '../theme/ink'
import { kindWord } from './saying'

/** The words that names are made of, with how often and what is named so. */
export function Words({ n, words, short }: { n: Names; words: string; short: boolean }) {
  const { query, show } = useWhere()
  const [picked, setPicked] = useState('')
  const open = query.get('word') ?? ''
  const most = Math.max(1, n.words[0]?.count ?? 1)
  const columns = useMemo(() => wordColumns(most), [most])
  return (
    <>
      <div className="filters">
        <WordsField label="Words" placeholder="part of a word" value={words} onWords={(w) => show({ words: w })} />
        <button type="button" aria-pressed={short} onClick={() => show({ short: short ? '' : '1' })}>
          shortened ones
        </button>
        {n.words.length < n.found && (
          <span className="faint">
            the {figure(n.words.length)} most frequent of {figure(n.found)} are shown
          </span>
        )}
      </div>
      {n.words.length === 0 ? (
        <p className="faint">No word fits this filter.</p>
      ) : (
        <Ledger
          label="Words; arrows move, Enter opens"
          columns={columns}
          rows={n.words}
          idOf={(w) => w.word}
          picked={picked || open}
          onPick={setPicked}
          onOpen={(w) => show({ word: open === w.word ? '' : w.word })}
          sorting={sortingFrom(query.get('sort'))}
          onSort={(s) => show({ sort: sortingText(s) })}
          below={(w) => open === w.word && <Named w={w} />}
          focus
        />
      )}
    </>
  )
}

const wordColumns = (most: number): Column<Word>[] => [
  {
    id: 'word',
    title: 'word',
    width: 'minmax(110px, 0.8fr)',
    value: (w) => w.word,
    cell: (w) => <b className="mono">{w.word}</b>,
  },
  {
    id: 'count',
    title: 'names',
    hint: 'names that it stands in',
    width: '60px',
    right: true,
    value: (w) => w.count,
    cell: (w) => figure(w.count),
  },
  {
    id: 'bar',
    title: <span className="hidden">beside the most frequent</span>,
    width: 'minmax(60px, 0.7fr)',
    cell: (w) => (
      <span className="track words" aria-hidden="true">
        <em style={{ width: `${(100 * w.count) / most}%` }} />
      </span>
    ),
  },
  { id: 'files', title: 'files', width: '52px', right: true, value: (w) => w.files, cell: (w) => figure(w.files) },
  {
    id: 'kinds',
    title: 'what is named so',
    width: 'minmax(150px, 1.4fr)',
    cell: (w) => (
      <span className="cut faint">
        {w.kinds
          .slice(0, 4)
          .map((k) => `${figure(k.count)} ${kindWord(k.kind, k.count)}`)
          .join(', ')}
      </span>
    ),
  },
  {
    id: 'long',
    title: 'may be short for',
    width: 'minmax(90px, 0.7fr)',
    value: (w) => w.long,
    cell: (w) => <span className="mono">{w.long}</span>,
  },
]

/** The first names with a word. */
function Named({ w }: { w: Word }) {
  return (
    <ul className="named">
      {w.places.map((p) => (
        <li key={`${p.path} ${p.line} ${p.name}`}>
          <PlaceLink path={p.path} line={p.line} as={p.name} /> <small className="mono">{p.path}</small>
        </li>
      ))}
      {w.count > w.places.length && (
        <li className="faint">
          {figure(w.count - w.places.length)} more; search for <span className="mono">{w.word}</span> with <kbd>/</kbd>
        </li>
      )}
    </ul>
  )
}
