import { useState } from 'react'
import { useFolders } from '../api/queries'

const words = { folder: '', git: 'Git repository', archive: 'archive' }

/** The folders that may be surveyed, to be gone through and chosen. */
export function FolderChoice({ onChoose }: { onChoose: (path: string) => void }) {
  const [open, setOpen] = useState(false)
  const [at, setAt] = useState('')
  const folders = useFolders(at, open)
  const f = folders.data
  const go = (path: string) => {
    setAt(path)
    if (path) onChoose(path)
  }
  return (
    <details className="folders" onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary>Choose a folder</summary>
      {folders.isError && <p role="alert">{folders.error.message}</p>}
      {f && (
        <>
          <p className="mono">
            {f.at || 'the allowed folders'}{' '}
            {f.at && (
              <button type="button" className="quiet" onClick={() => go(f.above)}>
                {f.above ? 'up' : 'all allowed folders'}
              </button>
            )}
          </p>
          <ul>
            {f.folders.map((x) => (
              <li key={x.path}>
                <button
                  type="button"
                  className="asLink mono"
                  onClick={() => (x.kind === 'archive' ? onChoose(x.path) : go(x.path))}
                >
                  {x.name}
                </button>{' '}
                <small>{words[x.kind]}</small>
              </li>
            ))}
          </ul>
          {f.folders.length === 0 && <p className="faint">No folder lies in it. It stands in the field above.</p>}
          {f.more > 0 && <p className="faint">{f.more} more; type the path of one of these.</p>}
        </>
      )}
    </details>
  )
}
