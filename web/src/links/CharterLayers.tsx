import { useState } from 'react'
import type { Charter } from '../api/types'
import { counted } from '../theme/ink'
import { split } from './globs'

type Layer = Charter['layers'][number]

/** One layer of the charter. */
export function LayerRow({
  layer,
  others,
  files,
  onChange,
  onDrop,
}: {
  layer: Layer
  others: string[]
  files: number
  onChange: (l: Layer) => void
  onDrop: () => void
}) {
  const [name, setName] = useState(layer.name)
  const [holds, setHolds] = useState(layer.holds.join(', '))
  const keep = () => {
    const next = { ...layer, name: name.trim(), holds: split(holds) }
    if (next.name && next.holds.length > 0 && (next.name !== layer.name || next.holds.join() !== layer.holds.join()))
      onChange(next)
  }
  const may = (n: string, on: boolean) => onChange({ ...layer, may: on ? [...layer.may, n] : layer.may.filter((m) => m !== n) })
  return (
    <tr>
      <td>
        <input
          aria-label={`Name of ${layer.name}`}
          value={name}
          onChange={(e) => setName(e.target.value)}
          onBlur={keep}
          size={12}
        />
        <small className="faint"> {counted(files, 'file')}</small>
      </td>
      <td>
        <input
          aria-label={`What ${layer.name} holds, parted by commas`}
          className="mono"
          value={holds}
          onChange={(e) => setHolds(e.target.value)}
          onBlur={keep}
        />
      </td>
      <td className="may">
        {layer.wiring ? (
          <span className="faint">everything</span>
        ) : (
          others.map((o) => (
            <label key={o} className="check">
              <input
                type="checkbox"
                aria-label={`${layer.name} may depend on ${o}`}
                checked={layer.may.includes(o)}
                onChange={(e) => may(o, e.target.checked)}
              />
              {o}
            </label>
          ))
        )}
      </td>
      <td>
        <input
          type="checkbox"
          aria-label={`${layer.name} is the wiring`}
          checked={layer.wiring}
          onChange={(e) => onChange({ ...layer, wiring: e.target.checked })}
        />
      </td>
      <td>
        <button type="button" className="quiet" onClick={onDrop}>
          Take away
        </button>
      </td>
    </tr>
  )
}

/** A layer that is being added. */
export function NewLayer({ onAdd }: { onAdd: (l: Layer) => void }) {
  const [name, setName] = useState('')
  const [holds, setHolds] = useState('')
  const ready = name.trim() !== '' && split(holds).length > 0
  return (
    <tr>
      <td>
        <input
          aria-label="Name of a new layer"
          placeholder="new layer"
          value={name}
          onChange={(e) => setName(e.target.value)}
          size={12}
        />
      </td>
      <td>
        <input
          aria-label="What the new layer holds, parted by commas"
          className="mono"
          placeholder="src/logic, src/rules/**"
          value={holds}
          onChange={(e) => setHolds(e.target.value)}
        />
      </td>
      <td />
      <td />
      <td>
        <button
          type="button"
          className="quiet"
          disabled={!ready}
          onClick={() => {
            onAdd({ name: name.trim(), holds: split(holds), may: [], wiring: false })
            setName('')
            setHolds('')
          }}
        >
          Add
        </button>
      </td>
    </tr>
  )
}
