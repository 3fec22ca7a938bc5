import { useState } from 'react'
import { useRules } from '../api/queries'
import type { Charter } from '../api/types'
import { thresholdsOf } from './hints'
import { split } from './globs'

type Area = Charter['apart'][number]

/** Places that are kept apart. */
export function AreaRow({ area, onChange, onDrop }: { area: Area; onChange: (a: Area) => void; onDrop: () => void }) {
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

/** Places that are to be kept apart. */
export function NewArea({ onAdd }: { onAdd: (a: Area) => void }) {
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

/** An exception with its reason. */
export function NewException({ onAdd }: { onAdd: (x: Charter['exceptions'][number]) => void }) {
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

/** A figure that a rule is to go by. */
export function NewThreshold({ onAdd }: { onAdd: (key: string, value: number) => void }) {
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
