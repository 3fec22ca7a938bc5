import { WordsField } from '../parts/WordsField'
import { useWhere } from '../place/place'
import { groupings, type Asked } from './desk'

/** What is put together by what, and what is left out. */
export function DeskFilters({ asked }: { asked: Asked }) {
  const { show } = useWhere()
  return (
    <div className="filters">
      <span className="faint">Group by</span>
      {groupings.map((g) => (
        <button
          key={g.id}
          type="button"
          aria-pressed={asked.group === g.id}
          onClick={() => show({ group: g.id === 'rule' ? '' : g.id, key: '' })}
        >
          {g.text}
        </button>
      ))}
      <WordsField
        label="Words"
        placeholder="words of a smell or a path"
        value={asked.words}
        onWords={(words) => show({ words })}
      />
      <label className="check">
        <input type="checkbox" checked={asked.quiet} onChange={(e) => show({ quiet: e.target.checked ? '1' : '' })} />
        dismissed ones too
      </label>
      <label className="check" title="also those that a habit or another rule at the same place tells of">
        <input type="checkbox" checked={asked.each} onChange={(e) => show({ each: e.target.checked ? '1' : '' })} />
        each by itself
      </label>
    </div>
  )
}
