import { useState } from 'react'
import type { Explained } from '../api/types'
import { Ledger, type Column } from '../parts/ledger/Ledger'
import { useWhere } from '../place/place'
import { useByHand } from '../review/byHand'
import { figure } from '../theme/ink'
import { wordsOf } from './saying'

/** What the words of those who use the software stand for, and which are not said instead. */
export function Glossary({ all }: { all: readonly Explained[] }) {
  const { show } = useWhere()
  const { set, error, busy } = useByHand()
  const [picked, setPicked] = useState('')
  const [form, setForm] = useState(none)
  const field = (name: keyof typeof none) => ({
    value: form[name],
    onChange: (e: React.ChangeEvent<HTMLInputElement>) => setForm({ ...form, [name]: e.target.value }),
  })
  const word = form.word.trim().toLowerCase()
  const save = () => {
    const avoid = wordsOf(form.not).map((w) => ({ kind: 'instead' as const, target: w, value: word }))
    const means = form.means.trim() ? [{ kind: 'term' as const, target: word, value: form.means.trim() }] : []
    set([...means, ...avoid], () => setForm(none))
  }
  return (
    <>
      <form
        className="filters glossary"
        onSubmit={(e) => {
          e.preventDefault()
          if (word && (form.means.trim() || wordsOf(form.not).length > 0)) save()
        }}
      >
        <label>
          The word <input size={12} maxLength={60} {...field('word')} />
        </label>
        <label>
          stands for <input size={34} maxLength={600} {...field('means')} />
        </label>
        <label>
          is not called <input size={16} maxLength={200} placeholder="batch, parcel" {...field('not')} />
        </label>
        <button type="submit" className="quiet" disabled={busy || !word || !(form.means.trim() || form.not.trim())}>
          Keep it
        </button>
      </form>
      {error && <p className="warn">{error.message}</p>}
      {all.length === 0 ? (
        <div className="empty">
          <p className="say">No word is explained yet.</p>
          <p>
            Say here what the words of those who use the software stand for; a charter may say it too, below{' '}
            <span className="mono">glossary</span>. Where code says another word instead, that is told as a smell of its names.
          </p>
        </div>
      ) : (
        <Ledger
          label="Glossary; arrows move, Enter shows the names with a word"
          columns={columns((x) => {
            const gone = x.not.map((w) => ({ kind: 'instead' as const, target: w, value: '', gone: true }))
            set([{ kind: 'term', target: x.word, value: '', gone: true }, ...gone])
          })}
          rows={all}
          idOf={(x) => x.word}
          picked={picked}
          onPick={setPicked}
          onOpen={(x) => show({ side: '', words: x.word, word: x.word })}
          focus
        />
      )}
    </>
  )
}

const none = { word: '', means: '', not: '' }

const columns = (takeAway: (x: Explained) => void): Column<Explained>[] => [
  { id: 'word', title: 'word', width: 'minmax(110px, 0.6fr)', cell: (x) => <b className="mono">{x.word}</b> },
  {
    id: 'means',
    title: 'stands for',
    width: 'minmax(200px, 2fr)',
    cell: (x) => (
      <span className="cut" title={x.means}>
        {x.means || <span className="faint">not said</span>}
      </span>
    ),
  },
  {
    id: 'not',
    title: 'is not called',
    width: 'minmax(100px, 0.8fr)',
    cell: (x) => <span className="cut mono">{x.not.join(', ')}</span>,
  },
  {
    id: 'names',
    title: 'names',
    hint: 'names here that it stands in',
    width: '60px',
    right: true,
    cell: (x) => figure(x.names),
  },
  {
    id: 'by',
    title: 'said by',
    width: 'minmax(110px, 0.7fr)',
    cell: (x) =>
      x.by_hand ? (
        <>
          <small>{x.by || 'by hand'}</small>{' '}
          <button type="button" className="quiet" onClick={() => takeAway(x)} aria-label={`Take ${x.word} out of the glossary`}>
            take out
          </button>
        </>
      ) : (
        <small className="faint">the charter</small>
      ),
  },
]
