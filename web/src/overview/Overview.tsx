import { useSheet } from '../api/queries'
import type { Sheet } from '../api/types'
import { Failed, Waiting } from '../parts/Waiting'
import { PlaceLink } from '../place/PlaceLink'
import { useNarrowing } from '../place/narrow'
import { useWhere } from '../place/place'
import { Below } from './Below'
import { BriefBlock } from './BriefBlock'
import { Next } from './Next'
import { PagesBlock } from './PagesBlock'
import { PatternBlock } from './PatternBlock'
import { RestsOn } from './RestsOn'
import { Said, Sentences } from './Said'
import { SectionBlock } from './Section'
import { Source } from './Source'
import { Suspects } from './Suspects'
import { Worst } from './Worst'
import './overview.css'
import './print.css'

/** What there is to say about a place, on one sheet. */
export default function Overview() {
  const { where } = useWhere()
  const sheet = useSheet(where)
  const narrowing = useNarrowing(where)
  if (sheet.isError) return <Failed error={sheet.error} />
  if (!sheet.data) return <Waiting />
  const s = sheet.data
  const held = <T extends { path: string }>(list: T[]) => (narrowing ? list.filter((x) => narrowing.holds(x.path)) : list)
  return <OneSheet key={s.place} s={{ ...s, hurts: held(s.hurts), read_first: held(s.read_first), entries: held(s.entries) }} />
}

function OneSheet({ s }: { s: Sheet }) {
  return (
    <article className="overview">
      <header className="titleblock">
        <h1>{s.place === '.' ? s.title : s.place}</h1>
        <p className="faint">
          <Source s={s} />
        </p>
        {s.purpose.text && (
          <p className="say">
            {s.purpose.text}{' '}
            <small>
              {s.purpose.source === 'author' ? (
                <>
                  its authors, <PlaceLink path={s.purpose.path} line={s.purpose.line} />
                </>
              ) : (
                s.purpose.source
              )}
            </small>
          </p>
        )}
      </header>
      <SectionBlock />
      <section>
        <Sentences all={s.sentences} />
        <Next s={s} />
        {s.limited && (
          <p className="faint">The brief leaves part of the codebase out of scope; figures on what is judged leave it out too.</p>
        )}
      </section>
      <Suspects all={s.suspects} />
      {s.strong.length > 0 && (
        <section>
          <h2>What is good</h2>
          {s.strong.map((x) => (
            <Said key={x.text} text={x.text} evidence={x.evidence} />
          ))}
        </section>
      )}
      <div className="two">
        <section>
          <h2>Where it smells most</h2>
          {s.worst.length > 0 ? (
            <Worst s={s} />
          ) : (
            <p className="say">
              {s.languages.length > 0 ? 'No rule is hit: there is nothing to hold against it.' : 'Nothing is judged here.'}
            </p>
          )}
        </section>
        {s.verdict !== '' && (
          <section>
            <h2>
              Pattern <small>{s.verdict}</small>
            </h2>
            {s.patterns.length === 0 && <p className="say">Nothing in the catalogue fits well enough to be named.</p>}
            {s.patterns.map((p, i) => (
              <PatternBlock key={p.name} p={p} first={i === 0} />
            ))}
            {s.modules.length > 0 && (
              <ul className="places onscreen">
                {s.modules.map((m) => (
                  <li key={m.path}>
                    <PlaceLink path={m.path} />{' '}
                    {m.pattern ? `is ${m.verdict === 'undecided' ? 'nearest to ' : ''}${m.pattern}` : 'shows no pattern'}
                    {m.cut && <small>, cut {m.cut}</small>}
                  </li>
                ))}
              </ul>
            )}
          </section>
        )}
      </div>
      <Below s={s} />
      {s.place === '.' && <PagesBlock />}
      {s.place === '.' && <BriefBlock />}
      <RestsOn s={s} />
    </article>
  )
}
