import type { Listing } from '../api/queries'
import { WordsField } from '../parts/WordsField'
import { useWhere } from '../place/place'
import { kinds, states } from '../review/kinds'
import { groupings } from './list'

interface Option {
  value: string
  text: string
}

/** How the list is grouped, and what it leaves out. */
export function FindingFilters({ listing, people, labels }: { listing: Listing; people: string[]; labels: string[] }) {
  const { show } = useWhere()
  const by = listing.group || 'order'
  return (
    <div className="filters">
      <span className="faint">Group by</span>
      {groupings.map((g) => (
        <button key={g.id} type="button" aria-pressed={by === g.id} onClick={() => show({ group: g.id === 'order' ? '' : g.id })}>
          {g.title}
        </button>
      ))}
      <Choice name="kind" value={listing.kind} options={kinds.map((k) => ({ value: k.kind, text: `${k.sign} ${k.word}` }))} />
      <Choice
        name="state"
        value={listing.state}
        options={[{ value: 'open', text: 'still open' }, ...states.map((s) => ({ value: s.state, text: s.word }))]}
      />
      <Choice name="person" value={listing.person} options={people.map((p) => ({ value: p, text: p }))} />
      <Choice name="label" value={listing.label} options={labels.map((l) => ({ value: l, text: `#${l}` }))} />
      <WordsField label="Words" placeholder="Words" value={listing.words} onWords={(words) => show({ words })} />
    </div>
  )
}

function Choice({ name, value, options }: { name: 'kind' | 'state' | 'person' | 'label'; value: string; options: Option[] }) {
  const { show } = useWhere()
  if (options.length === 0 && !value) return null
  return (
    <label>
      <span className="hidden">{name}</span>
      <select value={value} onChange={(e) => show({ [name]: e.target.value })}>
        <option value="">any {name}</option>
        {options.map((o) => (
          <option key={o.value} value={o.value}>
            {o.text}
          </option>
        ))}
      </select>
    </label>
  )
}
