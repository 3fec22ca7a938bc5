import { useState } from 'react'
import { useRules } from '../api/queries'
import { useChangeCharter } from '../api/changes'
import type { CharterState } from '../api/types'
import { useWhere } from '../place/place'
import { counted } from '../theme/ink'
import { thresholdsOf } from './hints'

type Charter = NonNullable<CharterState['charter']>
type Change = Parameters<ReturnType<typeof useChangeCharter>['mutate']>[0]['change']

const split = (s: string) =>
  s
    .split(',')
    .map((x) => x.trim())
    .filter(Boolean)

/** The charter as a form: each change goes into the text, which keeps its comments and its order. */
export function CharterForm({
  text,
  charter: told,
  state,
  onText,
}: {
  text: string
  charter: Charter | null
  state: CharterState
  onText: (t: string) => void
}) {
  const { where } = useWhere()
  const change = useChangeCharter(where.id)
  const [problem, setProblem] = useState('')
  // What the last change came to: it is there before the charter is held against the code.
  const [fresh, setFresh] = useState<{ text: string; charter: Charter | null } | null>(null)
  const charter = fresh && fresh.text === text ? fresh.charter : told
  const apply = (c: Change) =>
    change.mutate(
      { text, change: c },
      {
        onSuccess: (r) => {
          setProblem(r.faults.map((f) => f.text).join(' '))
          setFresh({ text: r.text, charter: r.charter ?? null })
          onText(r.text)
        },
        onError: (e) => setProblem(e.message),
      },
    )
  const layers = charter?.layers ?? []
  return (
    <div className="charterform">
      <label className="check">
        <input
          type="checkbox"
          checked={charter?.rings ?? false}
          onChange={(e) => apply({ what: 'rings', index: 0, drop: false, rings: e.target.checked })}
        />
        the layers are rings, the first the outermost
      </label>
      <table className="plain">
        <thead>
          <tr>
            <th scope="col">layer</th>
            <th scope="col">holds</th>
            <th scope="col">may depend on</th>
            <th scope="col" title="puts everything together, and holds no logic">
              wiring
            </th>
            <th />
          </tr>
        </thead>
        <tbody>
          {layers.map((l, i) => (
            <LayerRow
              key={l.name + l.holds.join()}
              layer={l}
              others={layers.map((o) => o.name).filter((n) => n !== l.name)}
              files={state.layers.find((x) => x.name === l.name)?.files ?? 0}
              onChange={(layer) => apply({ what: 'layer', index: i, drop: false, layer })}
              onDrop={() => apply({ what: 'layer', index: i, drop: true })}
            />
          ))}
          <NewLayer onAdd={(layer) => apply({ what: 'layer', index: -1, drop: false, layer })} />
        </tbody>
      </table>
      <h3>Kept apart</h3>
      <ul className="byhand">
        {(charter?.apart ?? []).map((a, i) => (
          <AreaRow
            key={a.name + a.places.join()}
            area={a}
            onChange={(apart) => apply({ what: 'apart', index: i, drop: false, apart })}
            onDrop={() => apply({ what: 'apart', index: i, drop: true })}
          />
        ))}
      </ul>
      <NewArea onAdd={(apart) => apply({ what: 'apart', index: -1, drop: false, apart })} />
      <h3>Exceptions</h3>
      <ul className="byhand">
        {(charter?.exceptions ?? []).map((x, i) => (
          <li key={x.from + x.to}>
            <span className="mono">{x.from}</span> may need <span className="mono">{x.to}</span>: {x.reason}
            {x.until && <> (until {x.until})</>}{' '}
            <button type="button" className="quiet" onClick={() => apply({ what: 'exception', index: i, drop: true })}>
              Take away
            </button>
          </li>
        ))}
      </ul>
      <NewException onAdd={(exception) => apply({ what: 'exception', index: -1, drop: false, exception })} />
      <h3>Thresholds</h3>
      <ul className="byhand">
        {Object.entries(charter?.thresholds ?? {}).map(([k, v]) => (
          <li key={k}>
            <span className="mono">{k}</span> {v}{' '}
            <button type="button" className="quiet" onClick={() => apply({ what: 'threshold', index: 0, drop: true, key: k })}>
              Take away
            </button>
          </li>
        ))}
      </ul>
      <NewThreshold onAdd={(key, value) => apply({ what: 'threshold', index: 0, drop: false, key, value })} />
      {problem && <p role="alert">{problem}</p>}
    </div>
  )
}

type Layer = Charter['layers'][number]

function LayerRow({
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

function NewLayer({ onAdd }: { onAdd: (l: Layer) => void }) {
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

type Area = Charter['apart'][number]

function AreaRow({ area, onChange, onDrop }: { area: Area; onChange: (a: Area) => void; onDrop: () => void }) {
  const [places, setPlaces] = useState(area.places.join(', '))
  const keep = () => {
    const next = split(places)
    if (next.length > 1 && next.join() !== area.places.join()) onChange({ ...area, places: next })
  }
  return (
    <li className="row">
      <span>{area.name}:</span>
      <input
        aria-label={`Places of ${area.name} that must not need each other, parted by commas`}
        className="mono"
        value={places}
        onChange={(e) => setPlaces(e.target.value)}
        onBlur={keep}
        size={40}
      />
      <button type="button" className="quiet" onClick={onDrop}>
        Take away
      </button>
    </li>
  )
}

function NewArea({ onAdd }: { onAdd: (a: Area) => void }) {
  const [name, setName] = useState('')
  const [places, setPlaces] = useState('')
  return (
    <div className="byhand row">
      <label>
        name
        <input value={name} onChange={(e) => setName(e.target.value)} size={12} />
      </label>
      <label>
        places that must not need each other
        <input
          className="mono"
          placeholder="bench/drying, bench/weather"
          value={places}
          onChange={(e) => setPlaces(e.target.value)}
          size={34}
        />
      </label>
      <button
        type="button"
        className="quiet"
        disabled={!name.trim() || split(places).length < 2}
        onClick={() => {
          onAdd({ name: name.trim(), places: split(places) })
          setName('')
          setPlaces('')
        }}
      >
        Keep apart
      </button>
    </div>
  )
}

function NewException({ onAdd }: { onAdd: (x: Charter['exceptions'][number]) => void }) {
  const [from, setFrom] = useState('')
  const [to, setTo] = useState('')
  const [reason, setReason] = useState('')
  const [until, setUntil] = useState('')
  return (
    <div className="byhand row">
      <label>
        from
        <input className="mono" value={from} onChange={(e) => setFrom(e.target.value)} />
      </label>
      <label>
        to
        <input className="mono" value={to} onChange={(e) => setTo(e.target.value)} />
      </label>
      <label>
        reason
        <input value={reason} onChange={(e) => setReason(e.target.value)} />
      </label>
      <label>
        until
        <input type="date" value={until} onChange={(e) => setUntil(e.target.value)} />
      </label>
      <button
        type="button"
        className="quiet"
        disabled={!from.trim() || !to.trim() || !reason.trim()}
        onClick={() => {
          onAdd({ from: from.trim(), to: to.trim(), reason: reason.trim(), until })
          setFrom('')
          setTo('')
          setReason('')
        }}
      >
        Allow
      </button>
    </div>
  )
}

function NewThreshold({ onAdd }: { onAdd: (key: string, value: number) => void }) {
  const keys = thresholdsOf(useRules().data ?? [])
  const [key, setKey] = useState('')
  const [value, setValue] = useState('')
  return (
    <div className="byhand row">
      <label>
        rule
        <select value={key} onChange={(e) => setKey(e.target.value)}>
          <option value="">choose …</option>
          {keys.map((k) => (
            <option key={k.key} value={k.key} title={k.meaning}>
              {k.key}
            </option>
          ))}
        </select>
      </label>
      <label title={keys.find((k) => k.key === key)?.meaning}>
        figure
        <input type="number" min="0" step="any" value={value} onChange={(e) => setValue(e.target.value)} size={6} />
      </label>
      <button type="button" className="quiet" disabled={!key || value === ''} onClick={() => onAdd(key, Number(value))}>
        Set
      </button>
    </div>
  )
}
