import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { useFindings, usePlaces } from '../api/queries'
import type { SearchLine } from '../api/types'
import { Sign } from '../findings/Sign'
import { Sheet } from '../frame/Sheet'
import { isOpening, takeTyped } from '../frame/gate'
import { parentOf, urlOf, useWhere } from '../place/place'
import { counted, figure, shortPath } from '../theme/ink'
import { searchCode } from './stream'

interface Found {
  q: string
  files: SearchLine[]
  end: SearchLine | null
  problem: string
}

const nothing: Found = { q: '', files: [], end: null, problem: '' }

/** One box for places, findings and the code itself. */
export default function Search({ onClose }: { onClose: () => void }) {
  const { where } = useWhere()
  const navigate = useNavigate()
  const [text, setText] = useState('')
  const [regex, setRegex] = useState(false)
  const [exact, setExact] = useState(false)
  const [here, setHere] = useState(false)
  const [found, setFound] = useState<Found>(nothing)
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
  const findings = useFindings(where.id)
  const settled = regex ? found.q === q : places.isSuccess && !places.isPlaceholderData
  useEffect(() => {
    const stop = new AbortController()
    const wait = setTimeout(() => {
      if (q.trim().length < 2) {
        setFound(nothing)
        return
      }
      const next: Found = { q, files: [], end: null, problem: '' }
      let due = 0
      const put = () => {
        window.clearTimeout(due)
        due = window.setTimeout(() => !stop.signal.aborted && setFound({ ...next, files: [...next.files] }), 40)
      }
      searchCode({ id: where.id, survey: where.survey, at: here ? where.at : '.', q, regex, exact }, stop.signal, (l) => {
        if (l.done) next.end = l
        else next.files.push(l)
        put()
      }).catch((e: Error) => {
        next.problem = e.message
        put()
      })
    }, 120)
    return () => {
      clearTimeout(wait)
      stop.abort()
    }
  }, [q, regex, exact, here, where.id, where.survey, where.at])

  const go = (url: string) => {
    onClose()
    void navigate(url)
  }
  const mine = useMemo(() => {
    const words = q.toLowerCase().trim()
    if (!words) return []
    return (findings.data ?? [])
      .filter((f) => `${f.title} ${f.text} ${f.labels.join(' ')} ${f.assignee}`.toLowerCase().includes(words))
      .slice(0, 8)
  }, [findings.data, q])
  const byFolder = useMemo(() => {
    const m = new Map<string, SearchLine[]>()
    for (const f of found.files) {
      const d = parentOf(f.path ?? '')
      const l = m.get(d)
      if (l) l.push(f)
      else m.set(d, [f])
    }
    return [...m.entries()].sort((a, b) => (a[0] < b[0] ? -1 : 1))
  }, [found.files])
  const items = () => [...(box.current?.querySelectorAll<HTMLElement>('[data-hit]') ?? [])]
  const press = (e: React.KeyboardEvent) => {
    if (e.nativeEvent.isComposing) return
    const list = items()
    if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
      const next = Math.max(0, Math.min(list.length - 1, at + (e.key === 'ArrowDown' ? 1 : -1)))
      setAt(next)
      list[next]?.scrollIntoView({ block: 'nearest' })
      e.preventDefault()
    } else if (e.key === 'Enter') {
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
  const placeUrl = (p: { path: string; kind: string; line: number }) =>
    p.kind === 'folder'
      ? urlOf({ id: where.id, view: 'layout', at: p.path, survey: where.survey })
      : urlOf({ id: where.id, view: 'code', at: p.path, line: p.line, survey: where.survey })
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
          <label className="check">
            <input type="checkbox" checked={regex} onChange={(e) => setRegex(e.target.checked)} /> regular expression
          </label>
          <label className="check">
            <input type="checkbox" checked={exact} onChange={(e) => setExact(e.target.checked)} /> match case
          </label>
          {where.at !== '.' && (
            <label className="check">
              <input type="checkbox" checked={here} onChange={(e) => setHere(e.target.checked)} /> only below{' '}
              {shortPath(where.at, 24)}
            </label>
          )}
        </div>
        {!text.trim() && <p className="faint">Type a few letters of a path or a name, or any words that stand in the code.</p>}
        <div className="hits">
          {!regex && (places.data?.length ?? 0) > 0 && q.trim() && (
            <section>
              <h3>Places</h3>
              {places.data?.slice(0, 10).map((p) => (
                <button key={`${p.path}:${p.definition}:${p.line}`} type="button" data-hit onClick={() => go(placeUrl(p))}>
                  <b className="mono">{p.name}</b> <small>{p.kind}</small>{' '}
                  <span className="mono faint">
                    {shortPath(p.path, 70)}
                    {p.line ? `:${p.line}` : ''}
                  </span>
                </button>
              ))}
            </section>
          )}
          {mine.length > 0 && (
            <section>
              <h3>Findings</h3>
              {mine.map((f) => (
                <button
                  key={f.id}
                  type="button"
                  data-hit
                  onClick={() => {
                    isOpening('finding')
                    go(urlOf({ id: where.id, view: 'findings' }, { open: String(f.id) }))
                  }}
                >
                  <Sign kind={f.kind} /> {f.title} <small>{f.state}</small>
                </button>
              ))}
            </section>
          )}
          {q.trim().length >= 2 && (
            <section aria-live="polite">
              <h3>
                Code{' '}
                <small>
                  {found.problem ||
                    (found.end
                      ? found.end.problem ||
                        `${counted(found.end.total ?? 0, 'line')} in ${counted(found.end.files ?? 0, 'file')}${found.end.more ? '; there are more' : ''}`
                      : found.q === q
                        ? `${figure(found.files.length)} files so far …`
                        : '…')}
                </small>
              </h3>
              {byFolder.slice(0, 120).map(([d, files]) => (
                <div key={d} className="hitfolder">
                  <h4 className="mono">{d === '.' ? 'top folder' : d}</h4>
                  {files.slice(0, 40).map((f) => (
                    <div key={f.path}>
                      {f.hits?.slice(0, 12).map((h) => (
                        <button
                          key={h.line}
                          type="button"
                          data-hit
                          title={`${f.path}:${h.line}`}
                          onClick={() =>
                            go(urlOf({ id: where.id, view: 'code', at: f.path ?? '', line: h.line, survey: where.survey }))
                          }
                        >
                          <span className="mono faint">
                            {shortPath((f.path ?? '').slice(d === '.' ? 0 : d.length + 1), 28)}:{h.line}
                          </span>
                          <Line text={h.text} start={h.start} end={h.end} />
                        </button>
                      ))}
                    </div>
                  ))}
                </div>
              ))}
            </section>
          )}
        </div>
      </div>
    </Sheet>
  )
}

const decoder = new TextDecoder()
const encoder = new TextEncoder()

/** A line with its hit marked; offsets count bytes. */
function Line({ text, start, end }: { text: string; start: number; end: number }) {
  const bytes = encoder.encode(text)
  const part = (a: number, b?: number) => decoder.decode(bytes.slice(a, b))
  return (
    <code>
      {part(0, start)}
      <mark>{part(start, end)}</mark>
      {part(end)}
    </code>
  )
}
