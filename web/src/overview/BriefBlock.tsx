import { Button } from '@chakra-ui/react'
import { useState } from 'react'
import { useBrief } from '../api/queries'
import { useReview } from '../review/review'
import { useSaving } from '../parts/saving'
import type { Brief, BriefVersion } from '../api/types'
import { useWhere } from '../place/place'
import { counted } from '../theme/ink'

const stages: { stage: Brief['stage']; hint: string }[] = [
  { stage: 'sketch', hint: 'tried out; judged mildly' },
  { stage: 'growing', hint: 'being built; the usual measure' },
  { stage: 'in service', hint: 'people rely on it; judged strictly' },
]

const lines = (text: string) =>
  text
    .split('\n')
    .map((l) => l.trim())
    .filter(Boolean)

/** What the lead set before judging, and the form in which it is set. */
export function BriefBlock() {
  const { where } = useWhere()
  const brief = useBrief(where.id)
  const [edit, setEdit] = useState(false)
  if (!brief.data) return null
  const b = brief.data.brief
  return (
    <section className="onscreen">
      <h2>Brief</h2>
      {edit ? (
        <Form key={brief.data.version} start={brief.data} onDone={() => setEdit(false)} />
      ) : (
        <>
          <p>
            Judged as <b>{b.stage}</b>;{' '}
            {b.in.length + b.out.length === 0
              ? 'everything is in scope'
              : `in scope: ${b.in.join(', ') || 'everything'}${b.out.length ? `, but for ${b.out.join(', ')}` : ''}`}
            . {b.questions.length === 0 ? 'No questions to answer.' : `${counted(b.questions.length, 'question')} to answer:`}
          </p>
          {b.questions.length > 0 && (
            <ul>
              {b.questions.map((q) => (
                <li key={q}>{q}</li>
              ))}
            </ul>
          )}
          <button type="button" className="quiet" onClick={() => setEdit(true)}>
            Change the brief
          </button>
        </>
      )}
    </section>
  )
}

function Form({ start, onDone }: { start: BriefVersion; onDone: () => void }) {
  const review = useReview()
  const save = useSaving()
  const [stage, setStage] = useState(start.brief.stage)
  const [inside, setInside] = useState(start.brief.in.join('\n'))
  const [outside, setOutside] = useState(start.brief.out.join('\n'))
  const [questions, setQuestions] = useState(start.brief.questions.join('\n'))
  return (
    <form
      className="brief"
      onSubmit={(e) => {
        e.preventDefault()
        const brief = { stage, in: lines(inside), out: lines(outside), questions: lines(questions) }
        save.run(review.setBrief(brief, start.brief, start.version), onDone)
      }}
    >
      <fieldset>
        <legend>How far along is it?</legend>
        {stages.map((s) => (
          <label key={s.stage} className="check">
            <input type="radio" name="stage" checked={stage === s.stage} onChange={() => setStage(s.stage)} /> {s.stage}{' '}
            <small>{s.hint}</small>
          </label>
        ))}
      </fieldset>
      <label>
        In scope, one glob a line (empty: everything)
        <textarea rows={2} value={inside} placeholder="desk/**" onChange={(e) => setInside(e.target.value)} />
      </label>
      <label>
        Out of scope, one glob a line
        <textarea rows={2} value={outside} placeholder="**/fixtures/**" onChange={(e) => setOutside(e.target.value)} />
      </label>
      <label>
        Questions to answer, one a line
        <textarea rows={3} value={questions} onChange={(e) => setQuestions(e.target.value)} />
      </label>
      {save.error && (
        <p role="alert" className="warn">
          {save.error.message} What you wrote is still here.
        </p>
      )}
      <p>
        <Button type="submit" size="sm" loading={save.busy}>
          Judge by this brief
        </Button>{' '}
        <button type="button" className="quiet" onClick={onDone}>
          Leave it as it was
        </button>
      </p>
    </form>
  )
}
