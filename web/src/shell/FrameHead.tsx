import { Link } from 'react-router'
import { PathBar } from './PathBar'

/** The line on top: the place, what was looked at of it, search and keys. */
export function FrameHead({
  name,
  revision,
  path,
  looked,
  onOpen,
}: {
  name: string
  revision: string
  path: string
  /** The share of judged lines looked at, null while it is not known. */
  looked: number | null
  onOpen: (what: 'search' | 'keys') => void
}) {
  return (
    <header>
      <Link to="/" className="mark" title="All codebases">
        Jantel
      </Link>
      <PathBar name={name} />
      <span className="revision mono" title={path}>
        {revision}
      </span>
      <span className="looked" title="the share of judged lines below this place that were looked at">
        {looked === null ? '' : `${Math.round(looked * 100)} % looked at`}
        <span className="track" aria-hidden="true">
          <em style={{ width: `${(looked ?? 0) * 100}%` }} />
        </span>
      </span>
      <button type="button" className="key" onClick={() => onOpen('search')}>
        Search <kbd>/</kbd>
      </button>
      <button type="button" className="key" onClick={() => onOpen('keys')}>
        Keys <kbd>?</kbd>
      </button>
    </header>
  )
}
