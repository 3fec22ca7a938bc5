import { usePlaces } from '../api/queries'
import { useWhere } from './place'

/** A field for a path, with what fits offered while it is typed. */
export function PlaceField({
  label,
  value,
  onChange,
  files = false,
}: {
  label: string
  value: string
  onChange: (v: string) => void
  /** Whether only files are offered. */
  files?: boolean
}) {
  const { where } = useWhere()
  const places = usePlaces(where, value)
  const id = `places-${label.replace(/\W+/g, '-')}`
  return (
    <label>
      {label}
      <input value={value} onChange={(e) => onChange(e.target.value)} list={id} className="mono" />
      <datalist id={id}>
        {(places.data ?? [])
          .filter((p) => p.kind === 'file' || (!files && p.kind === 'folder'))
          .slice(0, 12)
          .map((p) => (
            <option key={p.path} value={p.path} />
          ))}
      </datalist>
    </label>
  )
}
