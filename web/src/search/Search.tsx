import { useDeferredValue, useEffect, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { useFindings, usePlaces } from '../api/queries'
import { beginOpening, takeTyped } from '../parts/gate'
import { Sheet } from '../parts/Sheet'
import { stay, urlOf, useWhere } from '../place/place'
import { Sign } from '../review/Sign'
import { shortPath } from '../theme/ink'
import { CodeHits } from './CodeHits'
import { searchState } from './groups'
import { findText } from './HitsPanel'
import { useCodeSearch } from './useCodeSearch'
import './search.css'

/** One box for places, findings and the code itself. */
export default function Search({ onClose }: { onClose: () => void }) {
  const { where } = useWhere()
  const navigate = useNavigate()
  const [text, setText] = useState('')
  const [regex, setRegex] = useState(false)
  const [exact, setExact] = useState(false)
  const [here, setHere] = useState(false)
  const [at, setAt] = useState(0)
  const box = useRef<HTMLDivElement>(null)
  /** Enter was pressed before there was anything to open: the first hit of that text is opened when it comes. */
  const due = useRef('')
  const field = useRef<HTMLInputElement>(null)
  const begin = () => {
    field.current?.focus()
    const kept = takeTyped('search')
    if (kept?.typed) setText(kept.typed)
    if (kept?.entered) due.current = kept.typed
  }
  const q = useDeferredValue(text)
  const places = usePlaces(where, regex ? '' : q)
  const words = q.trim()
  const mine = useFindings(where.id, { words }, 8, words !== '').data
  const found = useCodeSearch({ id: where.id, survey: where.survey, at: here ? where.at : '.', q, regex, exact })
  const settled = regex ? found.q === q : places.isSuccess && !places.isPlaceholderData
  const go = (url: string) => {
    onClose()
    void navigate(url)
  }
  /** Opens a hit with all the others beside it. */
  const openHit = (path: string, line: number) =>
    go(urlOf({ ...stay(where), view: 'code', at: path, line }, findText({ q, regex, exact, at: here ? where.at : '.' })))
  const items = () => [...(box.current?.querySelectorAll<HTMLElement>('[data-hit]') ?? [])].filter((e) => e.offsetParent)
  const press = (e: React.KeyboardEvent) => {
    if (e.nativeEvent.isComposing) return
    const list = items()
    if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
      const next = Math.max(0, Math.min(list.length - 1, at + (e.key === 'ArrowDown' ? 1 : -1)))
      setAt(next)
      list[next]?.scrollIntoView({ block: 'nearest' })
      e.preventDefault()
    } else if (e.key === 'Enter' && e.target === field.current) {
      e.preventDefault()
      const hit = q === text && settled ? list[Math.min(at, list.length - 1)] : undefined
      if (hit) hit.click()
      else due.current = text
    }
  }
  useEffect(() => {
    if (!due.current || q !== text || !settled) return
    if (due.current === text) items()[0]?.click()
    due.current = ''
  })
  useEffect(() => {
    items().forEach((el, i) => el.classList.toggle('chosen', i === at))
  })
  const check = (says: React.ReactNode, on: boolean, set: (v: boolean) => void) => (
    <label className="check">
      <input type="checkbox" checked={on} onChange={(e) => set(e.target.checked)} /> {says}
    </label>
  )
  return (
    <Sheet title="Search" onClose={onClose} onOpen={begin} wide>
      <div className="search" ref={box} onKeyDown={press}>
        <div className="searchbar">
          <input
            ref={field}
            type="text"
            value={text}
            placeholder="A place, a finding, or text in the code"
            aria-label="Search"
            onChange={(e) => {
              setText(e.target.value)
              setAt(0)
            }}
          />
          {check('regular expression', regex, setRegex)}
          {check('match case', exact, setExact)}
          {where.at !== '.' && check(<>only below {shortPath(where.at, 24)}</>, here, setHere)}
        </div>
        {!text.trim() && <p className="faint">Type a few letters of a path or a name, or any words that stand in the code.</p>}
        <div className="hits">
          {!regex && (places.data?.length ?? 0) > 0 && words && (
            <section>
              <h3>Places</h3>
              {places.data?.slice(0, 10).map((p) => (
                <button
                  key={`${p.path}:${p.definition}:${p.line}`}
                  type="button"
                  data-hit
                  onClick={() =>
                    go(urlOf({ ...stay(where), view: p.kind === 'folder' ? 'layout' : 'code', at: p.path, line: p.line }))
                  }
                >
                  <b className="mono">{p.name}</b> <small>{p.kind}</small>{' '}
                  <span className="mono faint">
                    {shortPath(p.path, 70)}
                    {p.line ? `:${p.line}` : ''}
                  </span>
                </button>
              ))}
            </section>
          )}
          {words && mine && mine.rows.length > 0 && (
            <section>
              <h3>
                Findings{' '}
                {mine.count > mine.rows.length && (
                  <small>
                    the first {mine.rows.length} of {mine.count}
                  </small>
                )}
              </h3>
              {mine.rows.map((f) => (
                <button
                  key={f.id}
                  type="button"
                  data-hit
                  onClick={() => {
                    beginOpening('finding')
                    go(urlOf({ ...stay(where), view: 'findings' }, { open: String(f.id) }))
                  }}
                >
                  <Sign kind={f.kind} /> {f.title} <small>{f.state}</small>
                </button>
              ))}
            </section>
          )}
          {words.length >= 2 && (
            <section aria-live="polite">
              <h3>
                Code <small>{searchState(found, q)}</small>
              </h3>
              <CodeHits files={found.files} onOpen={openHit} />
            </section>
          )}
        </div>
      </div>
    </Sheet>
  )
}
