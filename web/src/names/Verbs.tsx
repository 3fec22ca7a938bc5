import type { Names } from '../api/types'
import { PlaceLink } from '../place/PlaceLink'
import { figure } from '../theme/ink'
import { promiseText } from './saying'

/** The verbs of functions: which do not keep what they promise, and which stand for one action. */
export function Verbs({ verbs, actions }: { verbs: Names['verbs']; actions: Names['actions'] }) {
  return (
    <div className="verbs" tabIndex={0} role="region" aria-label="Verbs of functions" data-focus="">
      {actions.length > 0 && (
        <section>
          <h2>Several verbs for one action</h2>
          {actions.map((a) => (
            <div key={a.verbs[0]?.kind} className="action">
              <p className="say">
                {a.verbs.map((v, i) => (
                  <span key={v.kind}>
                    {i > 0 && ', '}
                    <b className="mono">{v.kind}</b> {figure(v.count)}
                  </span>
                ))}
                {a.things.length === 0 && <span className="faint">; no thing has more than one of them</span>}
              </p>
              {a.things.length > 0 && (
                <ul>
                  {a.things.slice(0, 8).map((t) => (
                    <li key={t.thing}>
                      <span className="mono">{t.thing}</span>: {t.verbs.join(', ')}{' '}
                      <PlaceLink path={t.place.path} line={t.place.line} as={t.place.name} />
                    </li>
                  ))}
                  {a.things.length > 8 && <li className="faint">{figure(a.things.length - 8)} more</li>}
                </ul>
              )}
            </div>
          ))}
        </section>
      )}
      <section>
        <h2>First words of functions</h2>
        <table className="plain">
          <tbody>
            {verbs.map((v) => (
              <tr key={v.verb}>
                <td className="mono">{v.verb}</td>
                <td className="r">{figure(v.count)}</td>
                <td className={v.broken > 0 ? 'unsure' : 'faint'}>{promiseText(v)}</td>
                <td>
                  {v.places.slice(0, 3).map((p, i) => (
                    <span key={`${p.path} ${p.line}`}>
                      {i > 0 && ', '}
                      <PlaceLink path={p.path} line={p.line} as={p.name} />
                    </span>
                  ))}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {verbs.length === 0 && <p className="faint">No function has a name of several words.</p>}
      </section>
    </div>
  )
}
