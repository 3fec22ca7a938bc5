import { useCallback, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { useMargin } from '../api/queries'
import type { Margin, Smell } from '../api/types'
import { Sign } from '../review/Sign'
import { useRecording } from '../review/recording'
import { useReview } from '../review/review'
import { isOpening, takeTyped } from '../parts/gate'
import { Emphasised } from '../parts/Emphasised'
import { useKeys } from '../parts/keys'
import { PlaceActions } from '../place/PlaceActions'
import { AllByHand, PurposeByHand } from '../review/ByHand'
import { PlaceLink } from '../place/PlaceLink'
import { narrowName, useNarrowing } from '../place/narrow'
import { stay, urlOf, useWhere } from '../place/place'
import { counted, figure, inkStep, shortPath } from '../theme/ink'
import { Jot } from './Jot'
import { Score } from './Score'

/** The strip beside every view: what is known of the place, and where remarks are jotted. */
export function MarginStrip() {
  const { where, show } = useWhere()
  const subject = where.pick || where.at
  const narrowing = useNarrowing(where)
  const margin = useMargin({ ...where, at: subject })
  return (
    <aside className="margin" aria-label="Margin">
      <div className="marginscroll">
        {narrowing && (
          <p className="only">
            All views show only <b>{narrowName(where)}</b>: {counted(narrowing.files, 'file')}, {counted(narrowing.lines, 'line')}
            , {counted(narrowing.smells, 'smell')}.{' '}
            <button type="button" className="quiet" onClick={() => show({ feature: '', role: '' })}>
              Show all
            </button>
          </p>
        )}
        {margin.data ? (
          <About key={margin.data.path} m={margin.data} />
        ) : (
          margin.isError && <p className="warn">{margin.error.message}</p>
        )}
      </div>
      <Jot path={subject} line={where.pick ? 0 : where.line} end={where.pick ? 0 : where.end} survey={where.survey} />
    </aside>
  )
}

function About({ m }: { m: Margin }) {
  const { where } = useWhere()
  const review = useReview()
  const navigate = useNavigate()
  const [chosen, setChosen] = useState(0)
  const [all, setAll] = useState(false)
  const smells = all ? m.smells : m.smells.slice(0, 8)
  const smell = smells[Math.min(chosen, smells.length - 1)]
  const { isRecorded, record: toFinding } = useRecording(where.survey)
  const step = (by: number) => {
    if (smells.length === 0) return
    const next = Math.max(0, Math.min(smells.length - 1, chosen + by))
    setChosen(next)
    document.getElementById(`smell-${smells[next]?.id}`)?.scrollIntoView({ block: 'nearest' })
  }
  const readable = where.view !== 'findings'
  useKeys({
    next: readable ? () => step(1) : undefined,
    previous: readable ? () => step(-1) : undefined,
    smell: () => smell && toFinding(smell),
  })
  const roles = Object.entries(m.roles)
    .filter(([r]) => r)
    .sort((a, b) => b[1] - a[1])
  return (
    <>
      <h2 className="mono" title={m.path}>
        {m.path === '.' ? m.name : shortPath(m.path, 36)}
      </h2>
      <p className="purpose">
        {m.purpose.text ? (
          <>
            {m.purpose.text}{' '}
            {m.purpose.source === 'author' ? (
              <Link to={urlOf({ ...stay(where), view: 'code', at: m.purpose.path, line: m.purpose.line })}>its authors</Link>
            ) : (
              <i>{m.purpose.source}</i>
            )}
          </>
        ) : (
          <i>Nothing says what it is for.</i>
        )}
      </p>
      {m.kind === 'folder' && <PurposeByHand path={m.path} text={m.purpose.text} lead={m.purpose.source === 'lead'} />}
      {m.kind !== 'file' && <AllByHand path={m.path} />}
      <p className="facts">
        {m.kind === 'file' ? (
          <>
            {counted(m.lines, 'line')}
            {m.language && `, ${m.language}`}
            {m.skipped && (
              <details>
                <summary>
                  <b>{m.skipped}</b>: not judged
                </summary>
                <ul>
                  {m.origin.evidence.map((why) => (
                    <li key={why}>{why}</li>
                  ))}
                </ul>
              </details>
            )}
            {m.role.role && (
              <details>
                <summary>
                  Role <b>{m.role.role}</b>,{' '}
                  {m.role.source === 'assumed' ? <i>assumed</i> : `${Math.round(m.role.confidence * 100)} % sure`}
                </summary>
                <ul>
                  {m.role.reasons.map((r) => (
                    <li key={r}>{r}</li>
                  ))}
                </ul>
              </details>
            )}
            {!m.role.role && !m.skipped && <>, role unknown</>}
            {m.partial && <span className="unsure"> Read in part: {m.partial}.</span>}
          </>
        ) : (
          <>
            {counted(m.files, 'file')}, {counted(m.lines, 'line')}.{' '}
            {roles.length > 0 &&
              `Most often ${roles
                .slice(0, 3)
                .map(([r, n]) => `${r} (${figure(n)})`)
                .join(', ')}.`}
            {m.kind === 'folder' && m.ties.inside + m.ties.crossing > 0 && (
              <span title="dependencies between files below it, of all that touch them">
                {' '}
                {m.ties.crossing === 0
                  ? `All ${figure(m.ties.inside)} dependencies of its files stay inside.`
                  : `${figure(m.ties.inside)} of the ${counted(m.ties.inside + m.ties.crossing, 'dependency', 'dependencies')} of its files stay inside.`}
              </span>
            )}
          </>
        )}
      </p>
      <button type="button" className="quiet" onClick={() => review.mark(m.path, m.read < 1)}>
        {m.read >= 1 ? '● looked at' : m.read > 0 ? `◐ ${Math.round(m.read * 100)} % looked at` : '○ not looked at'} <kbd>l</kbd>
      </button>
      {where.view !== 'code' && <PlaceActions path={m.path} view={m.kind === 'file' ? 'code' : 'layout'} />}
      {m.history && <History h={m.history} />}
      {m.score && <Score score={m.score} strains={m.strains} titles={m.titles} />}
      <h3>
        <span>Smells here</span>
        <span>{figure(m.smell_count)}</span>
      </h3>
      {m.smells.length === 0 && <p className="faint">No rule is hit here.</p>}
      <ol className="smells">
        {smells.map((s, i) => (
          <SmellItem
            key={s.id}
            s={s}
            m={m}
            chosen={i === chosen}
            recorded={isRecorded(s)}
            onChoose={() => setChosen(i)}
            onRecord={() => toFinding(s)}
          />
        ))}
      </ol>
      {m.smells.length > smells.length && (
        <button type="button" className="quiet" onClick={() => setAll(true)}>
          Show {m.smells.length - smells.length} more{m.smell_count > m.smells.length ? ` of ${figure(m.smell_count)}` : ''}
        </button>
      )}
      <h3>
        <span>Findings here</span>
        <span>{figure(m.findings.length)}</span>
      </h3>
      {m.findings.length === 0 && <p className="faint">Nothing recorded yet. Write one below.</p>}
      <ul className="margfindings">
        {m.findings.slice(0, 12).map((f) => (
          <li key={f.id}>
            <Sign kind={f.kind} />
            <span>
              <button
                type="button"
                className="asLink"
                onClick={() => {
                  isOpening('finding')
                  void navigate(urlOf({ ...stay(where), view: 'findings', at: where.at }, { open: String(f.id) }))
                }}
              >
                {f.title}
              </button>
              <small>
                {f.state}
                {f.assignee && `, ${f.assignee}`}
              </small>
            </span>
          </li>
        ))}
      </ul>
    </>
  )
}

/** How a file came to be what it is: how often it changed, by whom, and with what. */
function History({ h }: { h: NonNullable<Margin['history']> }) {
  const month = (at: string) => new Date(at).toLocaleDateString('en-GB', { month: 'long', year: 'numeric' })
  return (
    <details className="history">
      <summary>
        Changed {h.changes === 1 ? 'once' : `${figure(h.changes)} times`}, last in {month(h.last)}
        {h.authors[0] && `, ${h.authors.length > 1 ? 'mostly ' : ''}by ${h.authors[0].name}`}
      </summary>
      <ul>
        {h.authors.slice(0, 6).map((a) => (
          <li key={a.name}>
            {a.name} <small>{counted(a.commits, 'change')}</small>
          </li>
        ))}
      </ul>
      {h.together.length > 0 && (
        <>
          <p className="faint">It changes together with</p>
          <ul>
            {h.together.map((p) => (
              <li key={p.b}>
                <PlaceLink path={p.b} max={30} />{' '}
                <small>
                  {figure(p.together)} times, {Math.round(p.confidence * 100)} %
                </small>
              </li>
            ))}
          </ul>
        </>
      )}
    </details>
  )
}

interface ItemProps {
  s: Smell
  m: Margin
  chosen: boolean
  recorded: boolean
  onChoose: () => void
  onRecord: () => void
}

function SmellItem({ s, m, chosen, recorded, onChoose, onRecord }: ItemProps) {
  const review = useReview()
  const title = m.titles[s.rule]
  return (
    <li id={`smell-${s.id}`} className={chosen ? 'chosen' : ''}>
      <span
        className={`ink k${inkStep(s.strength)}`}
        title={`strength ${s.strength.toFixed(2)} of 1`}
        role="img"
        aria-label={`strength ${s.strength.toFixed(2)}`}
      />
      <div>
        <button type="button" className="asText" aria-expanded={chosen} onClick={onChoose}>
          <Emphasised text={s.message} />
        </button>
        <small>
          {s.path !== m.path && (
            <>
              <PlaceLink path={s.path} line={s.line ?? 0} max={30} /> ·{' '}
            </>
          )}
          {title?.title ?? s.rule}
          {s.silenced && ` · silenced: ${s.silenced}`}
        </small>
        {chosen && (
          <div className="why">
            <p>{title?.why}</p>
            {s.evidence.length > 0 && (
              <ul>
                {s.evidence.map((e, i) => (
                  <li key={i}>
                    <PlaceLink path={e.path} line={e.line} max={30} /> <small>{e.note}</small>
                  </li>
                ))}
              </ul>
            )}
            <p>
              <b>Remedy.</b> {s.remedy}
            </p>
            <p className="doing">
              <button type="button" className="quiet" onClick={onRecord} disabled={recorded}>
                {recorded ? 'recorded' : 'Make it a finding'} {!recorded && <kbd>s</kbd>}
              </button>
              {s.silenced ? (
                <button type="button" className="quiet" onClick={() => review.silence(s, '')}>
                  Count it again
                </button>
              ) : (
                <SilenceField onSilence={(reason) => review.silence(s, reason)} />
              )}
            </p>
          </div>
        )}
      </div>
    </li>
  )
}

function SilenceField({ onSilence }: { onSilence: (reason: string) => void }) {
  const [open, setOpen] = useState(false)
  const [reason, setReason] = useState('')
  const attach = useCallback((field: HTMLInputElement | null) => {
    if (!field) return
    field.focus()
    setReason(takeTyped('silence')?.typed ?? '')
  }, [])
  if (!open)
    return (
      <button
        type="button"
        className="quiet"
        onClick={() => {
          isOpening('silence')
          setOpen(true)
        }}
      >
        Silence it
      </button>
    )
  return (
    <form
      className="inline"
      onSubmit={(e) => {
        e.preventDefault()
        if (!reason.trim()) return
        setOpen(false)
        document.getElementById('view')?.focus({ preventScroll: true })
        onSilence(reason.trim())
      }}
    >
      <input
        ref={attach}
        aria-label="Reason for silencing"
        placeholder="Why does it not count?"
        value={reason}
        maxLength={300}
        onChange={(e) => setReason(e.target.value)}
      />
    </form>
  )
}
