import type { Desk } from '../api/types'
import { useWhere } from '../place/place'
import { figure, inkStep } from '../theme/ink'
import type { Asked } from './desk'

/** The groups, the largest first; one that is picked narrows the list. */
export function DeskGroups({ d, asked }: { d: Desk; asked: Asked }) {
  const { show } = useWhere()
  return (
    <nav className="deskgroups" aria-label="Groups of smells">
      <ul>
        <li>
          <button type="button" aria-pressed={asked.key === ''} onClick={() => show({ key: '', smell: '' })}>
            <span className="ink k0" />
            <span className="cut">all</span>
            <span className="r">{figure(d.groups.reduce((n, g) => n + g.count, 0))}</span>
          </button>
        </li>
        {d.groups.map((g) => (
          <li key={g.key}>
            <button
              type="button"
              title={g.title}
              aria-pressed={asked.key === g.key}
              onClick={() => show({ key: asked.key === g.key ? '' : g.key, smell: '' })}
            >
              <span className={`ink k${g.count > 0 ? inkStep(g.strongest) : 0}`} />
              <span className={asked.group === 'folder' ? 'cut mono' : 'cut'}>{g.title}</span>
              <span className="r">{g.count > 0 ? figure(g.count) : <small>{figure(g.quiet)} dismissed</small>}</span>
            </button>
          </li>
        ))}
      </ul>
    </nav>
  )
}
