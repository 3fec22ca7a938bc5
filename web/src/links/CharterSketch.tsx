import type { CharterState } from '../api/types'
import { counted } from '../theme/ink'

/** The charter's layers as they are declared, the outermost on top; those that hold nothing yet are drawn too. */
export function CharterSketch({ state }: { state: CharterState }) {
  const layers = state.charter?.layers ?? []
  if (layers.length === 0) return null
  const files = new Map(state.layers.map((l) => [l.name, l.files]))
  return (
    <ol className="charterlayers" aria-label="Layers of the charter, the outermost first">
      {layers.map((l) => {
        const n = files.get(l.name) ?? 0
        return (
          <li key={l.name} className={n === 0 ? 'bare' : undefined} title={l.holds.join(', ')}>
            <b>{l.name}</b> <small>{n === 0 ? 'holds nothing yet' : counted(n, 'file')}</small>
            <span className="faint">
              {l.wiring ? 'wires everything' : l.may.length > 0 ? `may need ${l.may.join(', ')}` : 'needs none'}
            </span>
          </li>
        )
      })}
    </ol>
  )
}
