import { useState } from 'react'
import { useTried } from '../api/queries'
import type { Attempt } from '../api/types'
import { PlaceField } from '../place/PlaceField'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'

/** What a dependency would do that is not there yet. */
export function TryLink({ from }: { from: string }) {
  const { where } = useWhere()
  const [a, setA] = useState(from)
  const [b, setB] = useState('')
  const [asked, setAsked] = useState<{ from: string; to: string } | null>(null)
  const tried = useTried(where, asked)
  return (
    <details className="declare">
      <summary>Try a dependency before it exists</summary>
      <p className="faint">Name two files or folders. Nothing is changed by it.</p>
      <form
        className="byhand"
        onSubmit={(e) => {
          e.preventDefault()
          setAsked({ from: a.trim(), to: b.trim() })
        }}
      >
        <PlaceField label="If" value={a} onChange={setA} />
        <PlaceField label="needed" value={b} onChange={setB} />
        <button type="submit" className="quiet" disabled={!a.trim() || !b.trim()}>
          What would it do?
        </button>
      </form>
      {tried.isError && <p role="alert">{tried.error.message}</p>}
      {tried.data && <Told t={tried.data} />}
    </details>
  )
}

function Told({ t }: { t: Attempt }) {
  return (
    <ul className="places" role="status">
      <li>{t.now > 0 ? `It does already, ${counted(t.now, 'time')}.` : 'It does not yet.'}</li>
      <li>
        {t.ring.length > 0 ? (
          <>
            <span className="loud">It would close a ring:</span> the way back is there already,{' '}
            {t.ring.map((p, i) => (
              <span key={p}>
                {i > 0 && ' → '}
                <PlaceLink path={p} max={34} />
              </span>
            ))}
          </>
        ) : (
          'It would close no ring.'
        )}
      </li>
      {t.rule && (
        <li>
          <span className="loud">It would be against the charter:</span> {t.rule}.
        </li>
      )}
      <li>
        {t.newly > 0
          ? `A change of ${t.to} would then reach ${counted(t.newly, 'file')} that it does not reach now`
          : `No file would come to need ${t.to} that does not need it already`}
        {t.along > 0 && `; ${t.from} would come to need ${figure(t.along)} more`}.
      </li>
    </ul>
  )
}
