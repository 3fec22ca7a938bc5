import { lazy, Suspense, useEffect, useState } from 'react'
import { Link } from 'react-router'
import { useCodebase, useMargin, useSettings } from '../api/queries'
import { Problem } from '../api/client'
import { MarginStrip } from '../margin/MarginStrip'
import { enterView, beginOpening, takeTyped, useGate } from '../parts/gate'
import { ProgressLine } from '../parts/ProgressLine'
import { SignIn } from '../parts/SignIn'
import { useTheme } from '../parts/theme'
import { Failed } from '../parts/Waiting'
import { nearest, type PlaceKind } from '../parts/view'
import { parentOf, useWhere, whereNow } from '../place/place'
import { ReviewProvider } from '../review/ReviewProvider'
import { useReview } from '../review/review'
import { Alone, NotSurveyed, UnknownPlace, UnknownView } from './Alone'
import { FrameHead } from './FrameHead'
import { Panes } from './Panes'
import { useNarrow } from './narrow'
import { useShellKeys } from './keys'
import { ViewsNav } from './ViewsNav'
import { views } from './views'

const Search = lazy(() => import('../search/Search'))
const HitsPanel = lazy(() => import('../search/HitsPanel'))
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
  const { where, query, go, show } = useWhere()
  const codebase = useCodebase(where.id)
  const settings = useSettings().data
  const place = useMargin(where)
  const review = useReview()
  const narrow = useNarrow()
  useGate()
  const [over, setOver] = useState<'' | 'search' | 'keys'>('')
  useTheme(settings?.theme ?? 'auto')
  const status = codebase.data
  const here = place.data?.path === where.at ? place.data : undefined
  const kind: PlaceKind = where.at === '.' ? 'codebase' : here?.kind === 'file' ? 'file' : 'folder'
  // A folder has no text: a link that takes it for a file leads to what has something to say of it.
  const fits = here ? nearest(views, where.view, kind) : where.view
  useEffect(() => {
    if (fits !== where.view) go({ view: fits }, undefined, true)
  }, [fits, where.view, go])
  const margin = where.margin ? where.margin === 'on' : !narrow
  const marked = useMargin({ ...where, at: where.pick || where.at })
  const openOver = (what: 'search' | 'keys') => {
    beginOpening(what)
    setOver(what)
  }
  const close = () => {
    takeTyped(over) // what was typed for it goes with it
    setOver('')
    requestAnimationFrame(enterView)
  }
  // What the width of the page has by itself need not stand in the address.
  const setMargin = (on: boolean) => show({ margin: on === !narrow ? '' : on ? 'on' : 'off' })
  const fold = () => setMargin(!margin)
  useEffect(enterView, [where.view, where.at, status?.latest])
  const look = (view: string) => {
    if (views.find((v) => v.id === view)?.says[kind]) go({ view })
  }
  useShellKeys(look, {
    up: () => {
      const now = whereNow()
      if (now.at === '.') return
      const above = parentOf(now.at)
      const view = nearest(views, now.view, above === '.' ? 'codebase' : 'folder')
      go({ at: above, view, pick: view === 'layout' ? now.at : '' })
    },
    read: () => {
      const m = marked.data
      if (m && m.path === (whereNow().pick || whereNow().at)) review.mark(m.path, m.read < 1)
    },
    undo: () => review.undo(),
    margin: fold,
    legend: () => show({ legend: whereNow().legend ? '' : 'off' }),
    search: () => openOver('search'),
    card: () => openOver('keys'),
    note: () => {
      // At once where it is there, so that what is typed next goes into it;
      // a folded margin has to open first, and takes what is typed meanwhile.
      const field = document.getElementById('remark')
      if (field) field.focus()
      else {
        beginOpening('note')
        setMargin(true)
      }
    },
  })
  useEffect(() => {
    const at = where.at === '.' ? '' : ` · ${where.at}`
    document.title = status ? `${status.name}${at} · Jantel` : 'Jantel'
  }, [status, where.at])

  if (codebase.error instanceof Problem && codebase.error.status === 401) return <SignIn says={codebase.error.message} />
  if (codebase.isError)
    return (
      <Alone title="This codebase can not be shown">
        <p>{codebase.error.message}</p>
        <p>
          <Link to="/">All codebases</Link>
        </p>
      </Alone>
    )
  const surveyed = status !== undefined && status.latest > 0
  const entry = views.find((v) => v.id === where.view)
  return (
    <div className={margin ? 'frame' : 'frame folded'}>
      <FrameHead
        name={status?.name ?? '…'}
        revision={status?.revision ?? ''}
        path={status?.path ?? ''}
        looked={place.data?.read ?? null}
        onOpen={openOver}
      />
      <ViewsNav kind={kind} margin={margin} onFold={fold} />
      <div className={query.has('find') ? 'body hitting' : 'body'}>
        {query.has('find') && (
          <Suspense fallback={<aside className="hitspanel" />}>
            <HitsPanel />
          </Suspense>
        )}
        <main className="view" id="view" tabIndex={-1}>
          {status?.running && <ProgressLine progress={status.running} />}
          {status?.latest === 0 && !status.running && <NotSurveyed problem={status.last?.problem ?? ''} />}
          {surveyed &&
            (place.isError ? (
              place.error instanceof Problem && place.error.status === 404 ? (
                <UnknownPlace path={where.at} says={place.error.message} />
              ) : (
                <Failed error={place.error} />
              )
            ) : entry ? (
              fits === where.view && <Panes entry={entry} />
            ) : (
              <UnknownView name={where.view} />
            ))}
        </main>
        {margin && surveyed && !place.isError && <MarginStrip />}
      </div>
      <Suspense>
        {over === 'search' && <Search onClose={close} />}
        {over === 'keys' && <KeyCard onClose={close} />}
      </Suspense>
    </div>
  )
}
