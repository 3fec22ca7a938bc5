import type { Drawing } from '../api/types'
import { WordsField } from '../parts/WordsField'
import { flipped, useWhere } from '../place/place'
import { klass, lookFrom, type Look } from './look'

const words: Record<string, string> = {
  code: 'imports',
  lazy: 'imports when needed',
  rendered: 'components drawn',
  http: 'requests to routes',
  message: 'messages by name',
  'by name': 'templates, routes and settings by name',
  declared: 'declared by the lead',
  outside: 'packages from outside',
}

/** What of the dependencies is shown, and how. */
export function LinkFilters({
  d,
  look,
  open,
  asMatrix,
  onOpen,
}: {
  d: Drawing
  look: Look
  open: readonly string[]
  asMatrix: boolean
  onOpen: (to: string[]) => void
}) {
  const { show } = useWhere()
  const flip = (c: string) => show((now) => ({ off: flipped(lookFrom(now).off, c).join(',') }))
  return (
    <div className="filters">
      {d.classes.map((c) => (
        <label key={c} className="check" title={words[c]}>
          <input type="checkbox" checked={!look.off.has(c)} onChange={() => flip(c)} />
          <svg width="26" height="8" aria-hidden="true">
            <path d="M0 4h26" className={`bundle ${klass(c)}`} strokeWidth="1.6" />
          </svg>
          {c}
        </label>
      ))}
      <label className="check">
        <input type="checkbox" checked={look.tests} onChange={(e) => show({ tests: e.target.checked ? '1' : '' })} />
        tests
      </label>
      <label className="check" title="packages from outside, as a last row">
        <input type="checkbox" checked={look.rim} onChange={(e) => show({ rim: e.target.checked ? '1' : '' })} />
        packages
      </label>
      <label title="bundles of fewer dependencies are left out, but for rings and what is against the charter">
        at least{' '}
        <input
          type="number"
          className="short"
          min={1}
          value={look.least}
          onChange={(e) => show({ least: Number(e.target.value) > 1 ? e.target.value : '' })}
        />
      </label>
      <WordsField label="Name of a part" placeholder="touching …" value={look.name} onWords={(name) => show({ name })} />
      {d.boxes.some((b) => b.opens) && (
        <button
          type="button"
          className="quiet"
          title="takes every folder apart by one step"
          onClick={() => onOpen([...new Set([...open, ...d.boxes.filter((b) => b.opens).map((b) => b.path)])])}
        >
          Deeper
        </button>
      )}
      {open.length > 0 && (
        <button type="button" className="quiet" onClick={() => onOpen([])}>
          Close what is opened
        </button>
      )}
      <button type="button" className="quiet" onClick={() => show({ as: asMatrix ? 'drawing' : 'matrix' })}>
        {asMatrix ? 'As arrows' : 'As a matrix'}
      </button>
    </div>
  )
}
