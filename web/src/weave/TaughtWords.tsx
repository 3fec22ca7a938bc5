import { useState } from 'react'
import { useOverrules } from '../api/queries'
import { useWhere } from '../place/place'
import { roleOrder } from '../theme/roles'
import { useByHand } from '../review/byHand'

/** What words of names and folders stand for in this codebase alone. */
export function TaughtWords() {
  const { where } = useWhere()
  const hand = useByHand()
  const all = (useOverrules(where.id).data ?? []).filter((o) => o.kind === 'word')
  const [word, setWord] = useState('')
  const [role, setRole] = useState('logic')
  return (
    <details className="declare" open={all.length > 0 || undefined}>
      <summary>Words of this codebase{all.length > 0 && <small> {all.length}</small>}</summary>
      <p className="faint">
        Where files and folders are called by words of the house, say what they stand for: all roles are told anew, here and in
        later surveys.
      </p>
      <form
        className="byhand"
        onSubmit={(e) => {
          e.preventDefault()
          hand.set({ kind: 'word', target: word.trim().toLowerCase(), value: role }, () => setWord(''))
        }}
      >
        <label>
          The word
          <input value={word} onChange={(e) => setWord(e.target.value)} />
        </label>
        <label>
          stands for
          <select value={role} onChange={(e) => setRole(e.target.value)}>
            {roleOrder.map((r) => (
              <option key={r}>{r}</option>
            ))}
            <option value="">no role</option>
          </select>
        </label>
        <button type="submit" className="quiet" disabled={!word.trim()}>
          Teach
        </button>
      </form>
      {hand.error && <p role="alert">{hand.error.message}</p>}
      {all.length > 0 && (
        <ul className="byhand">
          {all.map((o) => (
            <li key={o.target}>
              <span className="mono">{o.target}</span> stands for {o.value || 'no role'}, set by hand{' '}
              <button type="button" className="quiet" onClick={() => hand.set({ ...o, gone: true })}>
                Take back
              </button>
            </li>
          ))}
        </ul>
      )}
    </details>
  )
}
