import { useWhere } from '../place/place'

const modes = [
  { name: '', title: 'Who needs what' },
  { name: 'reach', title: 'Reach' },
  { name: 'wiring', title: 'Wiring' },
] as const

/** What is shown of dependencies: who needs what, what is reached from the place, or what is handed out for what. */
export function Modes() {
  const { query, show } = useWhere()
  const mode = query.get('mode') ?? ''
  return (
    <div className="tabs" role="tablist" aria-label="What is shown">
      {modes.map((m) => (
        <button
          key={m.name}
          type="button"
          role="tab"
          aria-selected={m.name === mode}
          onClick={() => show({ mode: m.name, way: '' })}
        >
          {m.title}
        </button>
      ))}
    </div>
  )
}
