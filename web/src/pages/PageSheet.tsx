import { useEffect, type MouseEvent } from 'react'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'
import { Problem } from '../api/client'
import { useCodebase, usePage, useSettings } from '../api/queries'
import type { PageShown } from '../api/types'
import { useTheme } from '../parts/theme'
import { Failed, Waiting } from '../parts/Waiting'
import { urlOf } from '../place/place'
import { kindName } from '../review/pageKinds'
import { useReview } from '../review/review'
import { ReviewProvider } from '../review/ReviewProvider'
import { day } from '../theme/ink'
import { Draft } from './Draft'
import { PageEditor } from './PageEditor'
import { ExcerptOf } from './Piece'
import { linkedPlace, ticked } from './text'
import './pages.css'

/** A page that people read: a guide, a report, a decision, a draft of a regrouping. */
export default function PageSheet() {
  const { id = '0', page = '0' } = useParams()
  useTheme(useSettings().data?.theme ?? 'auto')
  return (
    <ReviewProvider id={Number(id)}>
      <Sheet id={Number(id)} page={Number(page)} />
    </ReviewProvider>
  )
}

function Sheet({ id, page }: { id: number; page: number }) {
  const shown = usePage(id, page)
  const codebase = useCodebase(id).data
  const [query, setQuery] = useSearchParams()
  const writing = query.has('write')
  const write = (on: boolean) => setQuery(on ? { write: '1' } : {}, { replace: true })
  const title = shown.data?.page.title
  useEffect(() => {
    document.title = title ? `${title} · Jantel` : 'Jantel'
  }, [title])
  return (
    <main className="page" id="view" tabIndex={-1}>
      <header>
        <p>
          <Link to="/" className="mark">
            Jantel
          </Link>{' '}
          <Link to={urlOf({ id, view: 'overview' })}>{codebase?.name ?? 'the codebase'}</Link>
        </p>
        {shown.data && !shown.isError && !writing && <Actions id={id} s={shown.data} onWrite={() => write(true)} />}
      </header>
      {shown.error instanceof Problem && shown.error.status === 404 ? (
        <p className="say">
          There is no such page, or it was taken away. <Link to={urlOf({ id, view: 'overview' })}>The pages that there are</Link>{' '}
          stand on the Overview.
        </p>
      ) : shown.isError ? (
        <Failed error={shown.error} />
      ) : !shown.data ? (
        <Waiting />
      ) : writing ? (
        <PageEditor key={shown.data.page.id} page={shown.data.page} onDone={() => write(false)} />
      ) : (
        <Read id={id} s={shown.data} />
      )}
    </main>
  )
}

function Actions({ id, s, onWrite }: { id: number; s: PageShown; onWrite: () => void }) {
  const review = useReview()
  const file = `/api/codebases/${id}/page/${s.page.id}`
  return (
    <p className="actions onscreen">
      <button type="button" onClick={onWrite}>
        Change it
      </button>
      <button type="button" onClick={() => window.print()}>
        Print
      </button>
      <a href={`${file}.html`} download>
        One HTML file
      </a>
      <a href={`${file}.md`} download>
        Markdown
      </a>
      <button
        type="button"
        onClick={() => {
          void review.changePage(s.page, { title: s.page.title, text: s.page.text, gone: true })
        }}
      >
        Take it away
      </button>
    </p>
  )
}

function Read({ id, s }: { id: number; s: PageShown }) {
  const review = useReview()
  const go = useNavigate()
  const clicked = (e: MouseEvent<HTMLElement>) => {
    const on = e.target as HTMLElement
    if (on instanceof HTMLInputElement && on.type === 'checkbox') {
      const all = [...e.currentTarget.querySelectorAll('input[type=checkbox]')]
      void review.changePage(s.page, { title: s.page.title, text: ticked(s.page.text, all.indexOf(on), on.checked) })
      return
    }
    const to = linkedPlace(on.closest('a')?.getAttribute('href') ?? '')
    if (!to || on.closest('figure') || e.ctrlKey || e.metaKey || e.shiftKey) return
    e.preventDefault()
    void go(
      urlOf({ id, view: /\.[A-Za-z0-9]+$/.test(to.at) || to.line ? 'code' : 'layout', at: to.at, line: to.line, end: to.end }),
    )
  }
  return (
    <article onClick={clicked}>
      <h1>{s.page.title}</h1>
      <p className="faint">
        {kindName(s.page.kind)}
        {s.page.by && `, ${s.page.by}`}, {day(s.page.at)}
      </p>
      {s.regroup && <Draft r={s.regroup} />}
      {s.blocks.map((b, i) =>
        b.excerpt ? (
          <ExcerptOf key={i} id={id} x={b.excerpt} />
        ) : (
          // The server has made this text harmless; steps can be ticked off, whatever it says of their boxes.
          <div key={i} dangerouslySetInnerHTML={{ __html: b.html.replaceAll(' disabled=""', '') }} />
        ),
      )}
    </article>
  )
}
