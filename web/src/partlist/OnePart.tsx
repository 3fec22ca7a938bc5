import { usePart } from '../api/queries'
import type { CallEnd, OnePart as Opened, Part } from '../api/types'
import { EndList } from '../parts/EndList'
import { More, useSome } from '../parts/More'
import { Pictures } from '../review/pictures/Pictures'
import { PlaceLink } from '../place/PlaceLink'
import { handOutUrl, nearName, useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'

/** A part opened in its place: how it begins, what it does where, what it is made of, who uses it. */
export function OnePart({ p }: { p: Part }) {
  const { where } = useWhere()
  const part = usePart({ ...where, at: p.path }, p.name)
  if (part.isError) return <p className="warn">{part.error.message}</p>
  const o = part.data
  if (!o || o.name !== p.name || o.path !== p.path) return <p className="faint onepart">…</p>
  return (
    <div className="onepart" role="group" aria-label={`The part ${p.name}`}>
      {o.head && <pre className="head">{o.head}</pre>}
      {p.duties.length > 0 && (
        <p>
          {p.duties.map((d, i) => (
            <span key={d.name}>
              {i > 0 && '; '}
              {d.name} <PlaceLink path={p.path} line={d.line} as={`line ${d.line}`} />
              {d.count > 1 && <small> and {counted(d.count - 1, 'more place')}</small>}
            </span>
          ))}
          .
        </p>
      )}
      <Jobs o={o} />
      <div className="partends">
        <Members o={o} />
        <Ends title="Used by" list={o.users} own={o.path} none="nobody that was found" />
        <Ends title="Uses" list={o.uses} own={o.path} none="no other part" />
        <Twins o={o} />
        <section>
          <h3>Tests {figure(o.tests.length)}</h3>
          <ul>
            {o.tests.slice(0, 8).map((t) => (
              <li key={t.path}>
                <PlaceLink path={t.path} max={30} /> <small>{t.kind}</small>
              </li>
            ))}
            {o.tests.length > 8 && <li className="faint">{figure(o.tests.length - 8)} more</li>}
            {o.tests.length === 0 && <li className="faint">none was found that reaches it</li>}
          </ul>
        </section>
      </div>
      <Pictures at={p.path} name={p.name} ties={tiesOf(o)} />
      <p className="faint">
        Hand out:{' '}
        {['part.svg', 'part.md'].map((file, i) => (
          <span key={file}>
            {i > 0 && ', '}
            <a href={handOutUrl(where, file, { at: p.path, name: p.name })} download>
              {file.endsWith('svg') ? 'SVG' : 'Markdown'}
            </a>
          </span>
        ))}
      </p>
      {o.left > 0 && <p className="faint">{counted(o.left, 'further end')} not listed.</p>}
    </div>
  )
}

/** What a box in a picture of a part can be tied to: what it is made of, uses and is used by. */
function tiesOf(o: Opened) {
  const own = o.members.map((m) => ({ path: o.path, name: m.name, line: m.line }))
  const ends = [...o.uses, ...o.users].map((e) => ({ path: e.path, name: nearName(e.name), line: e.line }))
  const seen = new Set<string>()
  return [...own, ...ends].filter((t) => t.name && !seen.has(t.path + t.name) && seen.add(t.path + t.name))
}

/** What hangs together inside, where there are several such groups: jobs that could stand apart. */
function Jobs({ o }: { o: Opened }) {
  if (o.jobs.length < 2) return null
  return (
    <p>
      <b>{figure(o.jobs.length)} groups of its functions do not call each other</b>:{' '}
      {o.jobs.slice(0, 6).map((names, i) => (
        <span key={names[0]}>
          {i > 0 && ' · '}
          <span className="mono">
            {names.slice(0, 5).join(', ')}
            {names.length > 5 && ` and ${names.length - 5} more`}
          </span>
        </span>
      ))}
      .
    </p>
  )
}

function Members({ o }: { o: Opened }) {
  const some = useSome(o.members, 12)
  if (o.members.length === 0) return null
  return (
    <section>
      <h3>Made of {figure(o.members.length)}</h3>
      <ul>
        {some.shown.map((m) => (
          <li key={`${m.name} ${m.line}`}>
            <PlaceLink path={o.path} line={m.line} as={m.name} />{' '}
            <small>
              {counted(m.end_line - m.line + 1, 'line')}
              {m.users > 0 && `, used from ${counted(m.users, 'place')}`}
            </small>
          </li>
        ))}
        <More some={some} />
      </ul>
    </section>
  )
}

function Ends({ title, list, own, none }: { title: string; list: readonly CallEnd[]; own: string; none: string }) {
  return (
    <section>
      <h3>
        {title} {figure(list.length)}
      </h3>
      <EndList list={list} own={own} none={none} />
    </section>
  )
}

function Twins({ o }: { o: Opened }) {
  const { where } = useWhere()
  if (o.twins.length === 0) return null
  return (
    <section>
      <h3>Nearly the same {figure(o.twins.length)}</h3>
      <ul>
        {o.twins.slice(0, 8).map((t) => (
          <li key={`${t.path} ${t.line}`}>
            <PlaceLink path={t.path} line={t.line} max={28} />{' '}
            <a
              href={`/c/${where.id}/code?${new URLSearchParams({ at: o.path, with: t.path, ...(where.survey ? { survey: String(where.survey) } : {}) })}`}
            >
              the lines that differ
            </a>
          </li>
        ))}
      </ul>
    </section>
  )
}
