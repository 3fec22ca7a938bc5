import type { Sheet } from '../api/types'
import { PlaceLink } from '../place/PlaceLink'
import { counted, figure } from '../theme/ink'
import { Runs } from './Runs'
import { Places, Reasons, Rostered } from './Said'

/** What stands below the first screenful: how it runs, where it starts, what to read, what hurts, and what is kept up. */
export function Below({ s }: { s: Sheet }) {
  return (
    <>
      <div className="two">
        <section>
          <h2>How it is built, run and tested</h2>
          {s.runs.length === 0 ? <p className="faint">Neither a README nor a project file here says how.</p> : <Runs s={s} />}
        </section>
        <section>
          <h2>Where it starts</h2>
          {s.entries.length === 0 && <p className="faint">No place was found where a program starts.</p>}
          <Places list={s.entries} first={8} />
          {s.languages.length > 0 && (
            <>
              <h2 className="onscreen">What it is written in</h2>
              <table className="plain onscreen">
                <tbody>
                  {s.languages.slice(0, 8).map((l) => (
                    <tr key={l.language}>
                      <td>{l.language}</td>
                      <td>
                        {figure(l.lines)} lines in {counted(l.files, 'file')}
                      </td>
                      <td>{(100 * l.share).toFixed(l.share < 0.1 ? 1 : 0)} %</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </>
          )}
        </section>
      </div>
      <div className="two">
        {s.read_first.length > 0 && (
          <section>
            <h2>Where to read first</h2>
            <Reasons list={s.read_first} />
          </section>
        )}
        {s.hurts.length > 0 && (
          <section>
            <h2>Where it will hurt</h2>
            <Reasons list={s.hurts} />
            {!s.sentences.some((x) => x.text.includes('commit')) && (
              <p className="faint">Without a history: ordered by strength and by how much needs it.</p>
            )}
          </section>
        )}
      </div>
      <div className="two">
        <section className="onscreen">
          <h2>Practices</h2>
          <table className="plain practices">
            <tbody>
              {s.practices.map((p) => (
                <tr key={p.name}>
                  <td>{p.found ? '✓' : '–'}</td>
                  <td>{p.name}</td>
                  <td>
                    {p.evidence[0] ? (
                      <PlaceLink path={p.evidence[0].path} line={p.evidence[0].line} max={34} />
                    ) : (
                      <small className={p.found ? '' : 'unsure'}>{p.text}</small>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
        {s.ask.length > 0 && (
          <section className="asked">
            <h2>Whom to ask</h2>
            {s.ask.map((x) => (
              <p key={x.text}>{x.text}</p>
            ))}
          </section>
        )}
      </div>
      {s.system.length > 0 && (
        <section>
          <h2>What it runs with</h2>
          <dl className="system">
            {s.system.map((g) => (
              <div key={g.name}>
                <dt>{g.name}</dt>
                <dd>
                  <Rostered list={g.items} />
                </dd>
              </div>
            ))}
          </dl>
        </section>
      )}
    </>
  )
}
