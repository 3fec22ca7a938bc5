import type { Sheet } from '../api/types'

/** Where the code comes from, and which state of it this is. */
export function Source({ s }: { s: Sheet }) {
  const o = s.origin
  const date = o.date ? new Date(o.date).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' }) : ''
  if (o.revision)
    return (
      <>
        {o.label && o.label !== 'HEAD' && !o.revision.startsWith(o.label) && <>{o.label}, </>}
        <span className="mono">{o.revision.slice(0, 10)}</span> “{o.subject}” by {o.author}
        {date && `, ${date}`}
      </>
    )
  if (o.kind === 'archive') return <>from an archive</>
  return (
    <>
      a folder as it stood
      {o.based_on && (
        <>
          , based on <span className="mono">{o.based_on.slice(0, 10)}</span>
        </>
      )}
    </>
  )
}
