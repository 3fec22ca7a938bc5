import { useState } from 'react'
import { useSheet, useSmells } from '../api/queries'
import type { Evidence, Sheet, Smell } from '../api/types'
import { useRecording } from '../review/recording'
import { Failed, Waiting } from '../parts/Waiting'
import { Emphasised } from '../parts/Emphasised'
import { PlaceLink } from '../place/PlaceLink'
import { useNarrowing } from '../place/narrow'
import { useWhere } from '../place/place'
import { counted, figure, inkStep, points } from '../theme/ink'
import { BriefBlock } from './BriefBlock'
import { SectionBlock } from './Section'
import { Suspects } from './Suspects'

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
  const { where } = useWhere()
  // Who wrote what is not judged is said above; here is what could not be read.
  const unread = Object.entries(s.totals.skipped).filter(([k]) => ['binary', 'minified', 'too large'].includes(k))
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
          {s.worst.length === 0 ? <p className="say">No rule is hit: there is nothing to hold against it.</p> : <Worst s={s} />}
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
              <ul className="places">
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
      <div className="two">
        <section>
          <h2>How it is built, run and tested</h2>
          {s.runs.length === 0 ? <p className="faint">Neither a README nor a project file here says how.</p> : <Runs s={s} />}
        </section>
        <section>
          <h2>Where it starts</h2>
          {s.entries.length === 0 && <p className="faint">No place was found where a program starts.</p>}
          <Places list={s.entries} first={8} />
          <h2>What it is written in</h2>
          <table className="plain">
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
        <section>
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
          <section>
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
      {s.place === '.' && <BriefBlock />}
      <section>
        <h2>What it rests on</h2>
        <p>
          {counted(s.totals.files, 'file')} in {counted(s.totals.folders, 'folder')}, {figure(s.totals.lines)} lines,{' '}
          {figure(s.totals.judged_lines)} of them judged
          {unread.length > 0 && `; not read: ${unread.map(([k, n]) => `${figure(n)} ${k}`).join(', ')}`}.{' '}
          {counted(s.resolved, 'import')} lead into the codebase, {figure(s.unresolved)} lead nowhere;{' '}
          {counted(s.totals.external_packages, 'package')} from outside.
        </p>
        {s.note_count > 0 && (
          <details>
            <summary>{counted(s.note_count, 'thing')} noted on the way in</summary>
            <ul>
              {s.notes.map((n) => (
                <li key={n.path + n.text}>
                  <span className="mono">{n.path}</span> {n.text}
                </li>
              ))}
            </ul>
          </details>
        )}
        <p className="exports">
          Hand it on:{' '}
          <a href={`/api/codebases/${where.id}/export/survey.html${where.survey ? `?survey=${where.survey}` : ''}`} download>
            one offline page
          </a>
          <a href={`/api/codebases/${where.id}/export/survey.json${where.survey ? `?survey=${where.survey}` : ''}`} download>
            the survey as JSON
          </a>
          <a href={`/api/codebases/${where.id}/export/survey.md${where.survey ? `?survey=${where.survey}` : ''}`} download>
            as Markdown
          </a>
          <a
            href={`/api/codebases/${where.id}/export/section.svg?${new URLSearchParams({ at: s.place, ...(where.survey ? { survey: String(where.survey) } : {}) })}`}
            download
          >
            the section as SVG
          </a>
          <button type="button" className="asLink" onClick={() => window.print()}>
            print
          </button>
        </p>
      </section>
    </article>
  )
}

function Source({ s }: { s: Sheet }) {
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

/** A sentence; a click shows the places it rests on. */
function Said({ text, evidence }: { text: string; evidence: Evidence[] }) {
  const [open, setOpen] = useState(false)
  if (evidence.length === 0) return <p className="say">{text}</p>
  return (
    <div className="said-so">
      <p className="say">
        <button type="button" className="asLink" aria-expanded={open} onClick={() => setOpen(!open)} title="what this rests on">
          {text}
        </button>
      </p>
      {open && <Places list={evidence} first={12} />}
    </div>
  )
}

/** The most telling sentences; the others are one step away. */
function Sentences({ all }: { all: Sheet['sentences'] }) {
  const [every, setEvery] = useState(false)
  const shown = every ? all : all.slice(0, 6)
  return (
    <>
      {shown.map((x) => (
        <Said key={x.text} text={x.text} evidence={x.evidence} />
      ))}
      {all.length > shown.length && (
        <button type="button" className="quiet" onClick={() => setEvery(true)}>
          {counted(all.length - shown.length, 'further sentence')}
        </button>
      )}
    </>
  )
}

/** How it is run, and the one step to take from here. */
function Next({ s }: { s: Sheet }) {
  const run = s.runs.find((r) => r.purpose === 'run') ?? s.runs[0]
  const first = s.read_first[0]
  if (!run && !first) return null
  return (
    <p className="next">
      {run && (
        <>
          {run.purpose === 'run' ? 'Run it with' : `To ${run.purpose} it:`} <code>{run.text}</code>{' '}
          <small>
            <PlaceLink path={run.path} line={run.line} max={30} />
          </small>
          .{' '}
        </>
      )}
      {first && (
        <>
          Read next: <PlaceLink path={first.path} line={first.line} max={44} /> <small>{first.why}</small>
        </>
      )}
    </p>
  )
}

function Places({ list, first }: { list: Evidence[]; first: number }) {
  const [all, setAll] = useState(false)
  const shown = all ? list : list.slice(0, first)
  return (
    <ul className="places">
      {shown.map((e, i) => (
        <li key={i}>
          <PlaceLink path={e.path} line={e.line} max={52} /> <small>{e.note}</small>
        </li>
      ))}
      {list.length > shown.length && (
        <li>
          <button type="button" className="quiet" onClick={() => setAll(true)}>
            {figure(list.length - shown.length)} more
          </button>
        </li>
      )}
    </ul>
  )
}

/** Places, each with why it is named. */
function Reasons({ list }: { list: Sheet['read_first'] }) {
  return (
    <ul className="places">
      {list.map((r) => (
        <li key={r.path + r.why}>
          <PlaceLink path={r.path} line={r.line} max={46} /> <small>{r.why}</small>
        </li>
      ))}
    </ul>
  )
}

/** Names in a row, each leading to the line that tells of it. */
function Rostered({ list }: { list: Evidence[] }) {
  const [all, setAll] = useState(false)
  const shown = all ? list : list.slice(0, 12)
  return (
    <>
      {shown.map((e) => (
        <PlaceLink key={e.note} path={e.path} line={e.line} as={e.note} />
      ))}
      {list.length > shown.length && (
        <button type="button" className="quiet" onClick={() => setAll(true)}>
          {figure(list.length - shown.length)} more
        </button>
      )}
    </>
  )
}

function Worst({ s }: { s: Sheet }) {
  const { where } = useWhere()
  const narrowing = useNarrowing(where)
  const [every, setAll] = useState(false)
  // The three worst of all may have nothing to do with what is picked.
  const all = every || narrowing !== null
  const list = useSmells(where, all)
  const shown =
    all && list.data
      ? list.data
          .filter((x) => !x.silenced && (narrowing === null || narrowing.holds(x.path)))
          .sort((a, b) => b.strength - a.strength)
      : s.worst
  const [more, setMore] = useState(50)
  return (
    <>
      <ol className="worst">
        {shown.slice(0, all ? more : undefined).map((sm) => (
          <WorstItem key={sm.id} sm={sm} />
        ))}
      </ol>
      {!all && s.smells > s.worst.length && (
        <button type="button" className="quiet" onClick={() => setAll(true)}>
          All {figure(s.smells)} smells
        </button>
      )}
      {all && shown.length > more && (
        <button type="button" className="quiet" onClick={() => setMore(more + 100)}>
          {figure(shown.length - more)} more
        </button>
      )}
    </>
  )
}

function WorstItem({ sm }: { sm: Smell }) {
  const [open, setOpen] = useState(false)
  const { where } = useWhere()
  const { isRecorded, record } = useRecording(where.survey)
  return (
    <li>
      <span className={`ink k${inkStep(sm.strength)}`} title={`strength ${sm.strength.toFixed(2)} of 1`} />
      <div>
        <button type="button" className="asText" aria-expanded={open} onClick={() => setOpen(!open)}>
          <Emphasised text={sm.message} />
        </button>
        <small>
          <PlaceLink path={sm.path} line={sm.line ?? 0} max={46} />{' '}
          {/* One button throughout, so that the focus stays where it is. */}
          <button type="button" className="quiet" aria-disabled={isRecorded(sm)} onClick={() => record(sm)}>
            {isRecorded(sm) ? 'recorded' : 'record it'}
          </button>
        </small>
        {open && (
          <div className="why">
            <p>{sm.remedy}</p>
            <Places list={sm.evidence} first={6} />
          </div>
        )}
      </div>
    </li>
  )
}

function PatternBlock({ p, first }: { p: Sheet['patterns'][number]; first: boolean }) {
  const [sums, setSums] = useState(false)
  return (
    <details className="pattern" open={first}>
      <summary>{p.name}</summary>
      <ul className="args">
        {p.for.map((a) => (
          <li key={a.text} className="for">
            <Argument a={a} sums={sums} />
          </li>
        ))}
        {p.against.map((a) => (
          <li key={a.text} className="against">
            <Argument a={a} sums={sums} />
          </li>
        ))}
      </ul>
      <button type="button" className="quiet" aria-expanded={sums} onClick={() => setSums(!sums)}>
        {sums ? `${points(p.score)} points of 100` : 'Arithmetic'}
      </button>
    </details>
  )
}

function Argument({ a, sums }: { a: Sheet['patterns'][number]['for'][number]; sums: boolean }) {
  const [open, setOpen] = useState(false)
  const pts = sums && (
    <small className="pts">
      {a.points > 0 ? '+' : ''}
      {a.points}
    </small>
  )
  if (a.evidence.length === 0)
    return (
      <>
        {a.text} {pts}
      </>
    )
  return (
    <>
      <button type="button" className="asLink" aria-expanded={open} onClick={() => setOpen(!open)}>
        {a.text}
      </button>{' '}
      {pts}
      {open && <Places list={a.evidence} first={8} />}
    </>
  )
}

const order = ['run', 'test', 'build', 'check', 'other']

function Runs({ s }: { s: Sheet }) {
  const [all, setAll] = useState(false)
  const sorted = [...s.runs].sort((a, b) => order.indexOf(a.purpose) - order.indexOf(b.purpose))
  // Two of each purpose tell most; the rest is a click away.
  const seen: Record<string, number> = {}
  const shown = all
    ? sorted
    : sorted.filter((r) => (seen[r.purpose] = (seen[r.purpose] ?? 0) + 1) <= (r.purpose === 'other' ? 0 : 3))
  return (
    <>
      <table className="plain runs">
        <tbody>
          {shown.map((r) => (
            <tr key={r.path + r.line + r.text}>
              <td>{r.purpose}</td>
              <td className="mono" title={r.says}>
                {r.text}
              </td>
              <td>
                <PlaceLink path={r.path} line={r.line} max={24} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {shown.length < sorted.length && (
        <button type="button" className="quiet" onClick={() => setAll(true)}>
          {figure(sorted.length - shown.length)} more
        </button>
      )}
    </>
  )
}
