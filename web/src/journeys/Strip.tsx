import { useJourney } from '../api/queries'
import type { Route, Stop, Way } from '../api/types'
import { Failed, Waiting } from '../parts/Waiting'
import { Pictures } from '../review/pictures/Pictures'
import { CopyText } from '../place/CopyText'
import { PlaceLink } from '../place/PlaceLink'
import { handOutUrl, nearName, useWhere } from '../place/place'
import { counted } from '../theme/ink'
import { AroundIt } from './AroundIt'
import { toldOf } from './around'
import { wayAsMarkdown } from './handOut'
import { asQuery } from './routes'
import { TryPattern } from './TryPattern'
import { done, lacks, nearestTests, unasked } from './way'

/** The way of a route, one stop at a time, from what answers it to what is kept. */
export function Strip({ route }: { route: Route }) {
  const { where } = useWhere()
  const way = useJourney(where, route)
  return (
    <section className="strip" aria-label={`The way of ${route.method} ${route.pattern}`}>
      {way.isError ? <Failed error={way.error} /> : way.data ? <Followed way={way.data} route={route} /> : <Waiting />}
    </section>
  )
}

function Followed({ way, route }: { way: Way; route: Route }) {
  const { where } = useWhere()
  if (way.broken)
    return (
      <p className="unsure">
        It can not be followed: {way.broken}. It is declared at <PlaceLink path={route.path} line={route.line} />.
      </p>
    )
  const tests = nearestTests(way.tests)
  return (
    <>
      <AroundIt way={way} />
      {unasked(way) && <p className="unsure">{unasked(way)}</p>}
      {way.skipped.length > 0 && <p className="unsure">{lacks(way.skipped)}</p>}
      <ol className="stops">
        {way.stops.map((s, i) => (
          <StopBox key={s.path + s.name + i} stop={s} />
        ))}
      </ol>
      <p className="say">
        {way.operations.length > 0 && (
          <>
            It{' '}
            {way.operations.map((o, i) => (
              <span key={o.entity + o.what}>
                {i > 0 && (i === way.operations.length - 1 ? ' and ' : ', ')}
                {done[o.what] ?? o.what} <PlaceLink path={o.path} line={o.line} as={o.entity} />
              </span>
            ))}
            .{' '}
          </>
        )}
        {way.ends.slice(way.operations.length > 0 ? 1 : 0).map((e) => `It ${e}. `)}
        {way.operations.length === 0 && way.ends.length === 0 && 'No store and no other system was found at its end. '}
        {way.others > 0 && `It reaches ${counted(way.others, 'further definition')} beside this way.`}
      </p>
      <p className="faint">
        {way.tests.length === 0 ? (
          'No test was found that reaches it.'
        ) : (
          <>
            {counted(way.tests.length, 'test file')} {way.tests.length === 1 ? 'reaches' : 'reach'} it:{' '}
            {tests.map((t, i) => (
              <span key={t.path}>
                {i > 0 && ', '}
                <PlaceLink path={t.path} max={40} /> ({t.kind})
              </span>
            ))}
            {way.tests.length > tests.length && ' …'}
          </>
        )}{' '}
        <CopyText text={() => wayAsMarkdown(way)} label="Copy as Markdown" done="copied as Markdown" />{' '}
        <a href={handOutUrl(where, 'journey.svg', asQuery(route))} download>
          SVG
        </a>
      </p>
      <Pictures
        at={route.path}
        name={`${route.method} ${route.pattern}`}
        ties={way.stops.map((s) => ({ path: s.path, name: nearName(s.name) || s.path, line: s.line }))}
      />
      <TryPattern route={route} />
    </>
  )
}

function StopBox({ stop }: { stop: Stop }) {
  return (
    <li className={stop.tie === 'likely' ? 'stop likely' : 'stop'}>
      <p className="stophead">
        <span className="mono name">{stop.name || 'the top of the file'}</span> {stop.role && <small>{stop.role}</small>}{' '}
        {stop.tie === 'likely' && <small className="unsure">may be: over an interface</small>}
        <br />
        <PlaceLink path={stop.path} line={stop.at || stop.line} max={46} />
      </p>
      {toldOf(stop).map((t) => (
        <p key={t.text} className={t.unsure ? 'toldof unsure' : 'toldof'}>
          <span>
            {t.text}
            {t.lines.map((line, n) => (
              <span key={line}>
                {n > 0 ? ', ' : t.lines.length > 1 ? ': lines ' : ': line '}
                <PlaceLink path={stop.path} line={line} as={String(line)} />
              </span>
            ))}
          </span>
        </p>
      ))}
      {stop.lines.length > 0 && (
        <pre className="mono" tabIndex={0} aria-label={`Lines of ${stop.name}`}>
          {stop.lines.map((l, i) => (
            <span key={i} className={stop.first + i === stop.at ? 'line on' : 'line'}>
              <span className="no">{stop.first + i}</span>
              {l || ' '}
            </span>
          ))}
        </pre>
      )}
    </li>
  )
}
