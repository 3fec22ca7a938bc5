import { lazy, Suspense, useEffect, useState } from 'react'
import { Link } from 'react-router'
import { useQueryClient } from '@tanstack/react-query'
import { useCodebase, useMargin, useSettings } from '../api/queries'
import { follow } from '../api/events'
import { MarginStrip } from '../margin/MarginStrip'
import { PathBar } from '../place/PathBar'
import { narrowName } from '../place/narrow'
import { parentOf, stay, urlOf, useWhere, views, whereNow } from '../place/place'
import { ProgressLine } from '../home/ProgressLine'
import { ReviewProvider } from '../findings/ReviewProvider'
import { useReview } from '../findings/review'
import { enterView, isOpening, takeTyped, useGate } from './gate'
import { useKeys } from './keys'
import { useTheme } from './theme'
import { Waiting } from './Waiting'

const Overview = lazy(() => import('../overview/Overview'))
const Layout = lazy(() => import('../layout/Layout'))
const Weave = lazy(() => import('../weave/Weave'))
const Dependencies = lazy(() => import('../links/Dependencies'))
const Journeys = lazy(() => import('../journeys/Journeys'))
const Findings = lazy(() => import('../findings/Findings'))
const Code = lazy(() => import('../code/Code'))
const Search = lazy(() => import('../search/Search'))
const KeyCard = lazy(() => import('./KeyCard').then((m) => ({ default: m.KeyCard })))

/** What stands around every view: path and views on top, the margin beside. */
export default function Frame() {
  const { where } = useWhere()
  return (
    <ReviewProvider id={where.id}>
      <Framed />
    </ReviewProvider>
  )
}

function Framed() {
  const qc = useQueryClient()
  const { where, go, show } = useWhere()
  const codebase = useCodebase(where.id)
  const settings = useSettings().data
  const place = useMargin(where)
  const review = useReview()
  const narrow = useNarrow()
  useGate()
  const [folded, setFolded] = useState<boolean | null>(null)
  const [over, setOver] = useState<'' | 'search' | 'keys'>('')
  const [legend, setLegend] = useState(true)
  useEffect(() => follow(qc), [qc])
  useTheme(settings?.theme ?? 'auto')
  const isFile = place.data?.path === where.at && place.data.kind === 'file'
  // A folder has no text: a link that takes it for a file leads to its ledger.
  const noText = where.view === 'code' && place.data?.path === where.at && !isFile
  useEffect(() => {
    if (noText) go({ view: 'layout' }, undefined, true)
  }, [noText, go])
  const margin = !(folded ?? narrow)
  const status = codebase.data
  const marked = useMargin({ ...where, at: where.pick || where.at })
  const openOver = (what: 'search' | 'keys') => {
    isOpening(what)
    setOver(what)
  }
  const close = () => {
    takeTyped(over) // what was typed for it goes with it
    setOver('')
    requestAnimationFrame(enterView)
  }
  useEffect(enterView, [where.view, where.at, status?.latest])
  const look = (view: (typeof views)[number]['view']) => {
    if (view === 'code' && !isFile) return
    go({ view })
  }
  useKeys({
    overview: () => look('overview'),
    layout: () => look('layout'),
    weave: () => look('weave'),
    dependencies: () => look('dependencies'),
    journeys: () => look('journeys'),
    findings: () => look('findings'),
    code: () => look('code'),
    up: () => {
      const now = whereNow()
      if (now.at !== '.')
        go({
          at: parentOf(now.at),
          view: now.view === 'code' ? 'layout' : now.view,
          pick: now.view === 'layout' ? now.at : '',
        })
    },
    read: () => {
      const m = marked.data
      if (m && m.path === (whereNow().pick || whereNow().at)) review.mark(m.path, m.read < 1)
    },
    undo: () => review.undo(),
    margin: () => setFolded(margin),
    legend: () => setLegend(!legend),
    search: () => openOver('search'),
    card: () => openOver('keys'),
    note: () => {
      // At once where it is there, so that what is typed next goes into it;
      // a folded margin has to open first, and takes what is typed meanwhile.
      const field = document.getElementById('remark')
      if (field) field.focus()
      else {
        isOpening('note')
        setFolded(false)
      }
    },
  })
  useEffect(() => {
    const at = where.at === '.' ? '' : ` · ${where.at}`
    document.title = status ? `${status.name}${at} · Jantel` : 'Jantel'
  }, [status, where.at])

  if (codebase.isError)
    return (
      <main className="alone">
        <h1>This codebase can not be shown</h1>
        <p>{codebase.error.message}</p>
        <p>
          <Link to="/">All codebases</Link>
        </p>
      </main>
    )
  const total = place.data
  return (
    <div className={margin ? 'frame' : 'frame folded'}>
      <header>
        <Link to="/" className="mark" title="All codebases">
          Jantel
        </Link>
        <PathBar name={status?.name ?? '…'} />
        <span className="revision mono" title={status?.path}>
          {status?.revision}
        </span>
        <span className="looked" title="the share of judged lines below this place that were looked at">
          {total ? `${Math.round(total.read * 100)} % looked at` : ''}
          <span className="track" aria-hidden="true">
            <em style={{ width: `${(total?.read ?? 0) * 100}%` }} />
          </span>
        </span>
        <button type="button" className="key" onClick={() => openOver('search')}>
          Search <kbd>/</kbd>
        </button>
        <button type="button" className="key" onClick={() => openOver('keys')}>
          Keys <kbd>?</kbd>
        </button>
      </header>
      <nav className="views" aria-label="Views">
        {views
          .filter((v) => v.view !== 'code' || isFile)
          .map((v) => (
            <Link
              key={v.view}
              to={urlOf({ ...stay(where), view: v.view, at: where.at })}
              aria-current={where.view === v.view ? 'page' : undefined}
              title={v.hint}
            >
              <sup>{v.digit}</sup>
              {v.title}
            </Link>
          ))}
        {narrowName(where) && (
          <button
            type="button"
            className="narrowed"
            title="All views show only what belongs to it, as it was picked in the weave"
            onClick={() => show({ feature: '', role: '' })}
          >
            only <b>{narrowName(where)}</b> <span aria-hidden="true">×</span>
            <span className="hidden">: show all again</span>
          </button>
        )}
        <button type="button" className="fold" aria-expanded={margin} onClick={() => setFolded(margin)}>
          {margin ? 'Fold margin' : 'Show margin'} <kbd>m</kbd>
        </button>
      </nav>
      <div className="body">
        <main className="view" id="view" tabIndex={-1}>
          {status?.running && <ProgressLine progress={status.running} />}
          {status && status.latest === 0 && !status.running ? (
            <NotSurveyed problem={status.last?.problem ?? ''} />
          ) : (
            status &&
            status.latest > 0 && (
              <Suspense fallback={<Waiting />}>
                {where.view === 'overview' && <Overview />}
                {where.view === 'layout' && <Layout legend={legend} />}
                {where.view === 'weave' && <Weave />}
                {where.view === 'dependencies' && <Dependencies />}
                {where.view === 'journeys' && <Journeys />}
                {where.view === 'findings' && <Findings />}
                {where.view === 'code' && !noText && <Code />}
              </Suspense>
            )
          )}
        </main>
        {margin && status && status.latest > 0 && <MarginStrip />}
      </div>
      <Suspense>
        {over === 'search' && <Search onClose={close} />}
        {over === 'keys' && <KeyCard onClose={close} />}
      </Suspense>
    </div>
  )
}

function NotSurveyed({ problem }: { problem: string }) {
  return (
    <section className="empty">
      <h1>Not surveyed yet</h1>
      {problem && <p className="warn">The last survey ended without a result: {problem}.</p>}
      <p>
        Its folders, its pattern and its smells will stand here. Start the survey from the <Link to="/">list of codebases</Link>.
      </p>
    </section>
  )
}

/** Below 900 pixels the margin folds by itself. */
function useNarrow(): boolean {
  const [narrow, setNarrow] = useState(() => window.matchMedia('(max-width: 899px)').matches)
  useEffect(() => {
    const m = window.matchMedia('(max-width: 899px)')
    const change = () => setNarrow(m.matches)
    m.addEventListener('change', change)
    return () => m.removeEventListener('change', change)
  }, [])
  return narrow
}
