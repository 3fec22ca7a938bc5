import { useCallback, useMemo, useRef, useState } from 'react'
import type { Kind, NewFinding } from '../api/types'
import { kinds } from '../findings/kinds'
import { useReview } from '../findings/review'
import { takeTyped } from '../frame/gate'
import { shortPath } from '../theme/ink'
import { asking, readRemark } from './remark'

/** The field in which a remark is recorded in one line. */
export function Jot({ path, line, end, survey }: { path: string; line: number; end: number; survey: number }) {
  const review = useReview()
  const [text, setText] = useState('')
  const [kind, setKind] = useState<Kind>('improve')
  const [who, setWho] = useState('')
  const [labels, setLabels] = useState<string[]>([])
  const [cursor, setCursor] = useState(0)
  const [choice, setChoice] = useState(0)
  const [dismissed, setDismissed] = useState(-1)
  const [problem, setProblem] = useState('')
  const [unsaved, setUnsaved] = useState('')
  const field = useRef<HTMLTextAreaElement>(null)
  const before = useRef<HTMLElement | null>(null) // who had the focus before the field
  const attach = useCallback((el: HTMLTextAreaElement | null) => {
    field.current = el
    const kept = el && takeTyped('note')
    if (!kept) return
    el.focus()
    setText(kept.typed)
    setCursor(kept.typed.length)
  }, [])
  /** Gives the keyboard back to the view, so that the next key acts there. */
  const leave = () => {
    const to = before.current?.isConnected ? before.current : document.getElementById('view')
    to?.focus({ preventScroll: true })
  }
  const ask = asking(text, cursor)
  const open = ask && ask.start !== dismissed
  const known = useMemo(() => {
    const people = new Set(review.findings.flatMap((f) => [f.assignee, f.author]).filter(Boolean))
    if (review.person) people.add(review.person)
    return { '@': [...people].sort(), '#': [...new Set(review.findings.flatMap((f) => f.labels))].sort() }
  }, [review.findings, review.person])
  const offers = useMemo(() => {
    if (!open || !ask) return []
    const word = ask.word.trim()
    const fit = known[ask.sign].filter((k) => k.toLowerCase().includes(word.toLowerCase())).slice(0, 6)
    return word && !fit.includes(word) ? [...fit, word] : fit
  }, [open, ask, known])

  const take = (value: string) => {
    if (!ask) return
    if (ask.sign === '@') setWho(value)
    else setLabels((l) => (l.includes(value) ? l : [...l, value]))
    const rest = (text.slice(0, ask.start) + text.slice(cursor)).replace(/ {2,}/g, ' ')
    setText(rest)
    setCursor(ask.start)
    setChoice(0)
  }
  const remark = readRemark(text, kind)
  const place = path === '.' ? 'the codebase' : shortPath(path, 34)
  const where = line > 0 ? `${place}:${line}${end > line ? `–${end}` : ''}` : place
  const record = async () => {
    if (!remark.title) return
    setProblem('')
    setUnsaved('')
    const f: NewFinding = { kind: remark.kind, title: remark.title, path, survey, assignee: who, labels }
    if (line > 0) Object.assign(f, { line, end_line: end })
    // The field is free at once: what is typed next is the view's again, or the
    // next remark's. A remark that can not be saved comes back.
    setText('')
    setKind('improve')
    setWho('')
    setLabels([])
    setDismissed(-1)
    leave()
    try {
      await review.add(f)
    } catch (e) {
      setProblem((e as Error).message)
      setUnsaved(text)
    }
  }
  const press = (e: React.KeyboardEvent) => {
    if (e.nativeEvent.isComposing) return
    if (offers.length > 0) {
      const move = { ArrowDown: 1, ArrowUp: -1 }[e.key]
      if (move) {
        setChoice((choice + move + offers.length) % offers.length)
        e.preventDefault()
        return
      }
      if (e.key === 'Enter' || e.key === 'Tab') {
        take(offers[Math.min(choice, offers.length - 1)] ?? '')
        e.preventDefault()
        return
      }
      if (e.key === 'Escape') {
        setDismissed(ask?.start ?? -1)
        e.stopPropagation()
        return
      }
    }
    if (e.key === 'Enter' && !e.shiftKey) {
      e.preventDefault()
      void record()
    }
    if (e.key === 'Escape') leave()
  }
  return (
    <form
      className="jot"
      onSubmit={(e) => {
        e.preventDefault()
        void record()
      }}
    >
      <div className="jotline">
        <label>
          <span className="hidden">Kind</span>
          <select
            value={remark.kind}
            onChange={(e) => setKind(e.target.value as Kind)}
            disabled={remark.named}
            className="kindmenu"
          >
            {kinds.map((k) => (
              <option key={k.kind} value={k.kind}>
                {k.sign} {k.word}
              </option>
            ))}
          </select>
        </label>
        {who && (
          <button type="button" className="chip" onClick={() => setWho('')} aria-label={`Without ${who}`}>
            @{who} ×
          </button>
        )}
        {labels.map((l) => (
          <button
            key={l}
            type="button"
            className="chip"
            onClick={() => setLabels(labels.filter((x) => x !== l))}
            aria-label={`Without ${l}`}
          >
            #{l} ×
          </button>
        ))}
        <span className="faint on">on {where}</span>
      </div>
      <textarea
        id="remark"
        ref={attach}
        rows={2}
        value={text}
        placeholder="Remark, then Enter"
        aria-label={`Remark on ${where}`}
        aria-autocomplete="list"
        aria-controls={offers.length > 0 ? 'offers' : undefined}
        aria-activedescendant={offers.length > 0 ? `offer-${choice}` : undefined}
        maxLength={500}
        onChange={(e) => {
          setText(e.target.value.replace(/\n/g, ' '))
          setCursor(e.target.selectionStart)
          setChoice(0)
        }}
        onFocus={(e) => {
          before.current = e.relatedTarget as HTMLElement | null
        }}
        onSelect={(e) => setCursor(e.currentTarget.selectionStart)}
        onKeyDown={press}
      />
      {offers.length > 0 && (
        <ul id="offers" className="offers" role="listbox" aria-label={ask?.sign === '@' ? 'People' : 'Labels'}>
          {offers.map((o, i) => (
            <li
              key={o}
              id={`offer-${i}`}
              role="option"
              aria-selected={i === choice}
              onPointerDown={(e) => (e.preventDefault(), take(o))}
            >
              {ask?.sign}
              {o}
              {!known[ask?.sign ?? '#'].includes(o) && <small> new</small>}
            </li>
          ))}
        </ul>
      )}
      {problem && (
        <p className="warn" role="alert">
          {problem}
          {unsaved && (
            <>
              {' '}
              Not saved: “{unsaved}”{' '}
              <button
                type="button"
                className="quiet"
                onClick={() => {
                  setText(text ? `${unsaved} ${text}` : unsaved)
                  setUnsaved('')
                  setProblem('')
                  field.current?.focus()
                }}
              >
                Put it back
              </button>
            </>
          )}
        </p>
      )}
      <p className="signs">
        {kinds.map((k) => (
          <span key={k.kind}>
            <b>{k.sign}</b> {k.word.toLowerCase()}
          </span>
        ))}
        <span>@who</span>
        <span>#label</span>
        <kbd>n</kbd>
      </p>
    </form>
  )
}
