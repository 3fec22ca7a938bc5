import { useQueryClient } from '@tanstack/react-query'
import { lazy, Suspense, useEffect, useState } from 'react'
import { useDeriveCharter, useTryCharter } from '../api/changes'
import { takeTried } from '../api/live'
import type { CharterState } from '../api/types'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { useReview } from '../review/review'
import { useSaving } from '../parts/saving'
import { counted, figure } from '../theme/ink'
import { CharterForm } from './CharterForm'
import { CharterSketch } from './CharterSketch'

const CharterText = lazy(() => import('./CharterText'))
const none: CharterState['faults'] = []

/** The charter as text, with what it forbids at once, before it is saved. */
export function CharterPane({
  state,
  tried,
  onTry,
}: {
  state: CharterState | null
  tried: CharterState | null
  onTry: (s: CharterState | null) => void
}) {
  const { where } = useWhere()
  const [open, setOpen] = useState(false)
  const [text, setText] = useState<string | null>(null)
  const [asText, setAsText] = useState(false)
  const attempt = useTryCharter(where)
  const derive = useDeriveCharter(where)
  const review = useReview()
  const qc = useQueryClient()
  const save = useSaving()
  const keep = (to: string, then?: () => void) =>
    state && save.run(review.setCharter(to, state.from === 'jantel' ? state.text : '', state.version), then)
  const written = text ?? state?.text ?? ''
  const { mutate } = attempt
  useEffect(() => {
    if (text === null) return
    // A moment's rest in typing is enough to look.
    const t = setTimeout(() => {
      if (text.trim() === '') onTry(null)
      else mutate({ text, version: state?.version ?? 0 }, { onSuccess: onTry })
    }, 350)
    return () => clearTimeout(t)
  }, [text, mutate, onTry, state?.version])
  if (!state) return null
  const now = tried ?? state
  return (
    <section className="charter">
      <h2>
        Charter{' '}
        <small>
          {state.from === 'none' ? 'none yet' : state.from === 'codebase' ? 'jantel.yaml in the codebase' : 'kept in Jantel'}
          {text !== null && text !== state.text && ', changed and not saved'}
        </small>
      </h2>
      {now.charter && (
        <p>
          {now.breaches.length === 0
            ? 'No dependency breaks it.'
            : `${counted(now.breaches.length, 'dependency', 'dependencies')} ${now.breaches.length === 1 ? 'breaks' : 'break'} it.`}{' '}
          {now.loosely > 0 && <span className="unsure">{counted(now.loosely, 'file')} lie in no layer.</span>}
        </p>
      )}
      <CharterSketch state={now} />
      {now.faults.map((f) => (
        <p key={f.line + f.text} role="alert">
          {f.line > 0 && <>Line {f.line}: </>}
          {f.text}
        </p>
      ))}
      {now.idle.length > 0 && <p className="unsure">Globs that match nothing: {now.idle.join(', ')}</p>}
      {now.expired.map((e) => (
        <p key={e.from + e.to} className="unsure">
          The exception from {e.from} to {e.to} expired on {e.until}.
        </p>
      ))}
      <Breaches state={now} />
      {!open ? (
        <p>
          <button type="button" className="asLink" onClick={() => setOpen(true)}>
            {state.from === 'none' ? 'Write a charter' : 'Change the charter'}
          </button>
        </p>
      ) : (
        <form
          onSubmit={(e) => {
            e.preventDefault()
            keep(written, () => {
              // What was told of it while it was tried stands until it is told again.
              if (tried?.text === written) takeTried(qc, where.id, tried)
              setText(null)
              onTry(null)
            })
          }}
        >
          <p className="buttons">
            <button type="button" className="quiet" aria-pressed={!asText} onClick={() => setAsText(false)}>
              As a form
            </button>
            <button type="button" className="quiet" aria-pressed={asText} onClick={() => setAsText(true)}>
              As text
            </button>
          </p>
          {!asText && (
            <CharterForm
              text={written}
              charter={(now.text === written || now.faults.length === 0 ? now.charter : state.charter) ?? null}
              state={now}
              onText={setText}
            />
          )}
          {asText && (
            <Suspense fallback={<p className="faint">The text is being set …</p>}>
              <CharterText text={written} faults={now.text === written ? now.faults : none} onText={setText} />
            </Suspense>
          )}
          <p className="buttons">
            <button type="submit" className="asLink" disabled={now.faults.length > 0 || save.busy}>
              Save in Jantel
            </button>
            <button
              type="button"
              className="quiet"
              onClick={() => derive.mutate(undefined, { onSuccess: (c) => setText(c.text) })}
            >
              Write it from how the code is
            </button>
            {state.from === 'jantel' && (
              <button type="button" className="quiet" onClick={() => keep('')}>
                Take it away
              </button>
            )}
            <button
              type="button"
              className="quiet"
              onClick={() => {
                setOpen(false)
                setText(null)
                onTry(null)
              }}
            >
              Close
            </button>
          </p>
          {save.error && <p role="alert">{save.error.message}</p>}
          {derive.isError && <p role="alert">{derive.error.message}</p>}
        </form>
      )}
    </section>
  )
}

function Breaches({ state }: { state: CharterState }) {
  const [most, setMost] = useState(8)
  const review = useReview()
  const { where } = useWhere()
  if (state.breaches.length === 0) return null
  return (
    <>
      <ul className="places breaches">
        {state.breaches.slice(0, most).map((b) => (
          <li key={b.from + b.line + b.to}>
            <PlaceLink path={b.from} line={b.line} max={40} /> needs <PlaceLink path={b.to} max={40} /> <small>{b.rule}</small>{' '}
            <button
              type="button"
              className="quiet"
              onClick={() =>
                void review.add({
                  kind: 'fix',
                  title: `${b.from} should not need ${b.to}`,
                  text: `The charter says: ${b.rule}.`,
                  path: b.from,
                  line: b.line,
                  survey: where.survey,
                })
              }
            >
              Make it a finding
            </button>
          </li>
        ))}
      </ul>
      {state.breaches.length > most && (
        <button type="button" className="quiet" onClick={() => setMost(most + 100)}>
          {figure(state.breaches.length - most)} more
        </button>
      )}
    </>
  )
}
