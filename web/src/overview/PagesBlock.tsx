import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { beginPage, usePages } from '../api/queries'
import type { Page } from '../api/types'
import { kindName, kinds } from '../review/pageKinds'
import { useWhere } from '../place/place'
import { useReview } from '../review/review'
import { day } from '../theme/ink'

/** The pages that were written of the codebase, and where another is begun. */
export function PagesBlock() {
  const { where } = useWhere()
  const pages = usePages(where.id).data
  const review = useReview()
  const go = useNavigate()
  const [problem, setProblem] = useState('')
  const begin = async (kind: Page['kind']) => {
    setProblem('')
    try {
      const b = await beginPage(where.id, kind)
      const made = await review.addPage(kind, b.title.trim() || `${kindName(kind)} without a title yet`, b.text)
      void go(`/c/${where.id}/page/${made.id}?write=1`)
    } catch (e) {
      setProblem(e instanceof Error ? e.message : String(e))
    }
  }
  return (
    <section className="pages onscreen">
      <h2>Pages</h2>
      {pages?.length === 0 && <p className="faint">Nothing was written yet for people to read.</p>}
      {pages && pages.length > 0 && (
        <ul className="places">
          {pages.map((p) => (
            <li key={p.id}>
              <small className="kindof">{kindName(p.kind)}</small> <Link to={`/c/${where.id}/page/${p.id}`}>{p.title}</Link>{' '}
              <small>
                {p.by && `${p.by}, `}
                {day(p.at)}
              </small>
            </li>
          ))}
        </ul>
      )}
      <p className="begin">
        Write{' '}
        {kinds.map((k) => (
          <button key={k.kind} type="button" title={k.says} onClick={() => void begin(k.kind)}>
            a {k.name.toLowerCase()}
          </button>
        ))}
      </p>
      {problem && (
        <p role="alert" className="problem">
          {problem}
        </p>
      )}
    </section>
  )
}
