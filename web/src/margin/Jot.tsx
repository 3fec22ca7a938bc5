import { useCallback, useRef, useState } from 'react'
import type { Kind, NewFinding } from '../api/types'
import { takeTyped } from '../parts/gate'
import { kinds } from '../review/kinds'
import { useReview } from '../review/review'
import { shortPath } from '../theme/ink'
import { NameOnce, useNameOnce } from './NameOnce'
import { Offers, useOffers } from './Offers'
import { readRemark } from './remark'

/** The field in which a remark is recorded in one line. */
export function Jot({ path, line, end, survey }: { path: string; line: number; end: number; survey: number }) {
  const review = useReview()
  const name = useNameOnce()
  const [text, setText] = useState('')
  const [kind, setKind] = useState<Kind>('improve')
  const [who, setWho] = useState('')
  const [labels, setLabels] = useState<string[]>([])
  const [cursor, setCursor] = useState(0)
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
  const offers = useOffers(text, cursor, (sign, value, rest, at) => {
    if (sign === '@') setWho(value)
    else setLabels((l) => (l.includes(value) ? l : [...l, value]))
    setText(rest)
    setCursor(at)
  })
  const remark = readRemark(text, kind)
  const place = path === '.' ? 'the codebase' : shortPath(path, 34)
  const where = line > 0 ? `${place}:${line}${end > line ? `–${end}` : ''}` : place
  const record = async () => {
    if (!remark.title) return
    setProblem('')
    setUnsaved('')
    const f: NewFinding = { kind: remark.kind, title: remark.title, path, survey, assignee: who, labels }
    if (line > 0) Object.assign(f, { line, end_line: end })
    const by = name.keep()
    if (by) f.by = by
    // The field is free at once: what is typed next is the view's again, or the
    // next remark's. A remark that can not be saved comes back.
    setText('')
    setKind('improve')
    setWho('')
    setLabels([])
    offers.reset()
    leave()
    try {
      await review.add(f)
    } catch (e) {
      setProblem((e as Error).message)
      setUnsaved(text)
    }
  }
  const press = (e: React.KeyboardEvent) => {
    if (e.nativeEvent.isComposing || offers.press(e)) return
    if (e.key === 'Enter' && !e.shiftKey) {
      e.preventDefault()
      void record()
    }
    if (e.key === 'Escape') leave()
  }
  const putBack = () => {
    setText(text ? `${unsaved} ${text}` : unsaved)
    setUnsaved('')
    setProblem('')
    field.current?.focus()
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
              <option key={k.kind} value={k.kind} title={k.meaning}>
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
        aria-controls={offers.list.length > 0 ? 'offers' : undefined}
        aria-activedescendant={offers.list.length > 0 ? `offer-${offers.choice}` : undefined}
        maxLength={500}
        onChange={(e) => {
          setText(e.target.value.replace(/\n/g, ' '))
          setCursor(e.target.selectionStart)
          offers.first()
        }}
        onFocus={(e) => {
          before.current = e.relatedTarget as HTMLElement | null
        }}
        onSelect={(e) => setCursor(e.currentTarget.selectionStart)}
        onKeyDown={press}
      />
      <Offers offers={offers} />
      <NameOnce name={name} shown={text !== ''} />
      {problem && (
        <p className="warn" role="alert">
          {problem}
          {unsaved && (
            <>
              {' '}
              Not saved: “{unsaved}”{' '}
              <button type="button" className="quiet" onClick={putBack}>
                Put it back
              </button>
            </>
          )}
        </p>
      )}
      <p className="signs">
        {kinds.map((k) => (
          <span key={k.kind} title={k.meaning}>
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
