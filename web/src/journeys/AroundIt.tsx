import type { Way } from '../api/types'
import { PlaceLink } from '../place/PlaceLink'
import { nameOf } from '../place/place'
import { inOrder, type Turn } from './around'

/** What runs before, around and after what answers, in the order in which it runs. */
export function AroundIt({ way }: { way: Pick<Way, 'around' | 'guards' | 'checks'> }) {
  const { before, after, failing } = inOrder(way)
  return (
    <>
      {before.length > 0 && (
        <p className="turns">
          Before it answers, in this order: <Turns turns={before} />.
        </p>
      )}
      {way.checks.length > 0 && (
        <p className="faint">
          What is sent is looked at by <span className="mono">{way.checks.join(', ')}</span>.
        </p>
      )}
      {after.length > 0 && (
        <p className="turns">
          After it: <Turns turns={after} />.
        </p>
      )}
      {failing.length > 0 && (
        <p className="turns">
          Where it fails: <Turns turns={failing} />.
        </p>
      )}
    </>
  )
}

function Turns({ turns }: { turns: readonly Turn[] }) {
  return turns.map((t, i) => (
    <span key={`${t.name} ${t.path}:${t.line} ${i}`}>
      {i > 0 && ' → '}
      {t.to ? (
        <PlaceLink path={t.to} line={t.toLine} as={t.name} />
      ) : t.path ? (
        <PlaceLink path={t.path} line={t.line} as={t.name} />
      ) : (
        <span className="mono">{t.name}</span>
      )}
      {t.note && <small> {t.note}</small>}
      {t.to && t.path && (
        <small>
          {' '}
          at <PlaceLink path={t.path} line={t.line} as={`${nameOf(t.path)}:${t.line}`} />
        </small>
      )}
    </span>
  ))
}
