import { useState } from 'react'
import { useOverrules } from '../api/queries'
import type { Grid } from '../api/types'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { useByHand } from '../review/byHand'
import { counted, figure } from '../theme/ink'

/** One feature against its siblings, and what the lead says of it. */
export function FeatureTold({ grid, index }: { grid: Grid; index: number }) {
  const { where } = useWhere()
  const hand = useByHand()
  const by = useOverrules(where.id).data ?? []
  const f = grid.features[index]
  const [name, setName] = useState(f?.name ?? '')
  if (!f) return null
  const parts = grid.cells.filter((c) => c.feature === index)
  const renames = by.filter((o) => o.kind === 'rename')
  return (
    <section className="told">
      <h2>{f.name || 'shared'}</h2>
      <p>
        {counted(f.files, 'file')}, {figure(f.lines)} lines
        {f.name && <>, in {counted(f.scatter, 'folder')}</>}.
        {f.missing.length > 0 && (
          <> It has no {f.missing.map((i) => grid.roles[i]).join(' and no ')}, which most features have.</>
        )}
      </p>
      <ul className="places">
        {parts.map((c) => (
          <li key={c.role}>
            {grid.roles[c.role]}: {counted(c.files, 'file')} in <PlaceLink path={c.folder} />
          </li>
        ))}
      </ul>
      {f.name && (
        <form
          className="byhand"
          onSubmit={(e) => {
            e.preventDefault()
            if (name.trim() && name.trim() !== f.name) hand.set({ kind: 'rename', target: f.name, value: name.trim() })
          }}
        >
          <label>
            Call it
            <input value={name} onChange={(e) => setName(e.target.value)} list="features" />
          </label>
          <datalist id="features">{grid.features.map((o) => o.name && <option key={o.name} value={o.name} />)}</datalist>
          <button type="submit" className="quiet">
            {grid.features.some((o) => o.name === name.trim() && o.name !== f.name) ? 'Merge the two' : 'Rename'}
          </button>
          <button type="button" className="quiet" onClick={() => hand.set({ kind: 'rename', target: f.name, value: '' })}>
            It is no feature
          </button>
        </form>
      )}
      {hand.error && <p role="alert">{hand.error.message}</p>}
      {renames.length > 0 && (
        <ul className="byhand">
          {renames.map((o) => (
            <li key={o.target}>
              <span className="mono">{o.target}</span> {o.value ? <>is called {o.value}</> : 'is no feature'}, set by hand{' '}
              <button type="button" className="quiet" onClick={() => hand.set({ ...o, gone: true })}>
                Take back
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  )
}
