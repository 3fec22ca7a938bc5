import { useState } from 'react'
import type { Page } from '../api/types'
import { kindName } from '../review/pageKinds'
import { useReview } from '../review/review'

/** Title and text of a page while they are written. What could not be saved stays in the fields. */
export function PageEditor({ page: now, onDone }: { page: Page; onDone: () => void }) {
  const review = useReview()
  // What was begun with: what others write meanwhile comes in here too, and must not be written over unseen.
  const [page] = useState(now)
  const [title, setTitle] = useState(page.title)
  const [text, setText] = useState(page.text)
  const [problem, setProblem] = useState('')
  const [saving, setSaving] = useState(false)
  const save = async () => {
    setSaving(true)
    setProblem('')
    try {
      if (title !== page.title || text !== page.text) await review.changePage(page, { title: title.trim(), text })
      onDone()
    } catch (e) {
      setProblem(e instanceof Error ? e.message : String(e))
      setSaving(false)
    }
  }
  return (
    <form
      className="writing"
      onSubmit={(e) => {
        e.preventDefault()
        void save()
      }}
      onKeyDown={(e) => {
        if (e.key !== 'Enter' || !(e.ctrlKey || e.metaKey) || e.nativeEvent.isComposing) return
        e.preventDefault() // a field would send the form as well
        if (!saving && title.trim()) void save()
      }}
    >
      <h1>{kindName(page.kind)}</h1>
      <label>
        title
        <input value={title} maxLength={200} required autoFocus onChange={(e) => setTitle(e.target.value)} />
      </label>
      <label>
        text, in Markdown
        <textarea value={text} rows={24} onChange={(e) => setText(e.target.value)} />
      </label>
      <p className="faint">
        A link to a path leads to its place. Alone in its paragraph it shows the lines:{' '}
        <code>[what it says](path/to/file#L10-L20)</code>, or <code>#name</code> of a definition, which goes with it.{' '}
        <code>- [ ]</code> begins a step to tick off.
      </p>
      {problem && (
        <p role="alert" className="problem">
          {problem}
        </p>
      )}
      <p>
        <button type="submit" className="main" disabled={saving || !title.trim()}>
          Save <kbd>Ctrl Enter</kbd>
        </button>{' '}
        <button type="button" onClick={onDone}>
          Leave it as it was
        </button>
      </p>
    </form>
  )
}
