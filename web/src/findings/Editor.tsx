import { Button } from '@chakra-ui/react'
import { Emphasised } from '../parts/Emphasised'
import { useEffect, useState } from 'react'
import { Problem } from '../api/client'
import { render, useChanges } from '../api/queries'
import type { Finding, Kind, Patch, State } from '../api/types'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { counted } from '../theme/ink'
import { kinds, states } from '../review/kinds'
import { Conflict } from './Conflict'
import { draftOf, patchOf, type Draft } from './draft'
import { useReview } from '../review/review'

/** One finding, opened in its place in the list. */
export function Editor({ f, onClose }: { f: Finding; onClose: () => void }) {
  const { where } = useWhere()
  const review = useReview()
  const [base, setBase] = useState(f)
  const [d, setD] = useState(draftOf(f))
  const [theirs, setTheirs] = useState<Finding | null>(null)
  const [problem, setProblem] = useState('')
  const [html, setHtml] = useState('')
  const [write, setWrite] = useState(!f.text)
  const changes = useChanges(where.id, f.id, f.version)
  const patch = patchOf(draftOf(base), d)
  const dirty = Object.keys(patch).length > 0
  // What somebody else changed comes in by itself while nothing is typed.
  if (!dirty && f.version > base.version) {
    setBase(f)
    setD(draftOf(f))
  }
  useEffect(() => {
    if (write || !d.text) return
    let late = false
    render(d.text)
      .then((r) => !late && setHtml(r.html))
      .catch((e: Error) => setProblem(e.message))
    return () => {
      late = true
    }
  }, [write, d.text])
  const save = async (on: Finding, p: Patch) => {
    setProblem('')
    try {
      const made = await review.change(on, p)
      setBase(made)
      setD(draftOf(made))
      setTheirs(null)
      setWrite(!made.text)
    } catch (e) {
      if (e instanceof Problem && e.current) setTheirs(e.current)
      else setProblem((e as Error).message)
    }
  }
  const quick = (p: Patch) => {
    if (dirty) setD({ ...d, ...(p as Partial<Draft>) })
    else void save(base, p)
  }
  return (
    <div
      className="editor"
      role="group"
      aria-label={f.title}
      tabIndex={-1}
      onKeyDown={(e) => e.key === 'Escape' && !dirty && onClose()}
    >
      {theirs && (
        <Conflict
          theirs={theirs}
          mine={d}
          changed={Object.keys(patch)}
          onSave={(p) => void save(theirs, p)}
          onTake={() => {
            setBase(theirs)
            setD(draftOf(theirs))
            setTheirs(null)
          }}
        />
      )}
      <div className="efields">
        <label>
          kind
          <select value={d.kind} onChange={(e) => quick({ kind: e.target.value as Kind })}>
            {kinds.map((k) => (
              <option key={k.kind} value={k.kind}>
                {k.sign} {k.word}: {k.meaning}
              </option>
            ))}
          </select>
        </label>
        <label>
          state
          <select value={d.state} onChange={(e) => quick({ state: e.target.value as State })}>
            {states.map((s) => (
              <option key={s.state}>{s.state}</option>
            ))}
          </select>
        </label>
        <label>
          for
          <input
            value={d.assignee}
            maxLength={100}
            placeholder="a name"
            onChange={(e) => setD({ ...d, assignee: e.target.value })}
          />
        </label>
        <label className="grow">
          labels, with commas
          <input value={d.labels} onChange={(e) => setD({ ...d, labels: e.target.value })} />
        </label>
      </div>
      <label>
        title
        <input value={d.title} maxLength={500} onChange={(e) => setD({ ...d, title: e.target.value })} />
      </label>
      {write ? (
        <label>
          text, in Markdown
          <textarea rows={6} value={d.text} onChange={(e) => setD({ ...d, text: e.target.value })} />
        </label>
      ) : (
        // The server has made this text harmless; it renders no raw HTML.
        <div className="rendered" dangerouslySetInnerHTML={{ __html: html }} />
      )}
      {f.place.quote && <pre className="quote mono">{f.place.quote}</pre>}
      {f.evidence.length > 0 && (
        <ul className="places">
          {f.evidence.map((e, i) => (
            <li key={i}>
              <PlaceLink path={e.path} line={e.line} />{' '}
              <small>
                <Emphasised text={e.note} />
              </small>
            </li>
          ))}
        </ul>
      )}
      {problem && (
        <p role="alert" className="warn">
          {problem} What you typed is still here.
        </p>
      )}
      <p className="doing">
        {dirty && (
          <Button size="sm" onClick={() => void save(base, patch)}>
            Save
          </Button>
        )}
        {d.text && (
          <button type="button" className="quiet" onClick={() => setWrite(!write)}>
            {write ? 'Show it rendered' : 'Write'}
          </button>
        )}
        {!d.text && !write && (
          <button type="button" className="quiet" onClick={() => setWrite(true)}>
            Write a longer text
          </button>
        )}
        <button type="button" className="quiet" onClick={() => void save(base, { deleted: true }).then(onClose)}>
          Delete
        </button>
        <button type="button" className="quiet" onClick={onClose}>
          Close
        </button>
      </p>
      <details>
        <summary>
          {f.author ? `Noted by ${f.author}` : 'Noted'} on{' '}
          {new Date(f.created).toLocaleDateString('en-GB', { dateStyle: 'long' })}
          {(changes.data?.length ?? 0) > 0 && `, ${counted(changes.data?.length ?? 0, 'change')} since`}
        </summary>
        <ul>
          {changes.data?.map((c) => (
            <li key={`${c.version}-${c.field}`}>
              {new Date(c.at).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })} {c.by && `${c.by}: `}
              {c.field} <del>{c.old || '(empty)'}</del> → {c.new || '(empty)'}
            </li>
          ))}
          <li className="faint">
            Written on survey {f.place.survey}
            {f.place.definition && `, in ${f.place.definition}`}
            {f.place.hash && `, content ${f.place.hash.slice(0, 12)}`}
          </li>
        </ul>
      </details>
    </div>
  )
}
