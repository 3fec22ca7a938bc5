import { useState } from 'react'
import { useSmells } from '../api/queries'
import type { Margin } from '../api/types'
import { useKeys } from '../parts/keys'
import { useWhere } from '../place/place'
import { useRecording } from '../review/recording'
import { figure } from '../theme/ink'
import { SmellItem } from './SmellItem'

/** How many smells stand in the margin at first. */
const atFirst = 8

/** The smells of the place, the strongest first. */
export function SmellsHere({ m }: { m: Margin }) {
  const { where } = useWhere()
  const [chosen, setChosen] = useState(0)
  const [count, setCount] = useState(atFirst)
  // What the margin was sent is enough for most places; more comes on demand.
  const more = useSmells({ ...where, at: m.path }, { feature: '', role: '' }, count, count > m.smells.length).data
  const all = count > m.smells.length && more ? more.smells : m.smells
  const smells = all.slice(0, count)
  const titles = { ...m.titles, ...more?.titles }
  const { isRecorded, record } = useRecording(where.survey)
  const smell = smells[Math.min(chosen, smells.length - 1)]
  const step = (by: number) => {
    if (smells.length === 0) return
    const next = Math.max(0, Math.min(smells.length - 1, chosen + by))
    setChosen(next)
    document.getElementById(`smell-${smells[next]?.id}`)?.scrollIntoView({ block: 'nearest' })
  }
  const readable = where.view !== 'findings' && where.view !== 'smells'
  useKeys({
    next: readable ? () => step(1) : undefined,
    previous: readable ? () => step(-1) : undefined,
    smell: where.view !== 'smells' ? () => smell && record(smell) : undefined,
  })
  const total = Math.max(m.smell_count, more?.total ?? m.smells.length)
  return (
    <>
      <h3>
        <span>Smells here</span>
        <span>{figure(m.smell_count)}</span>
      </h3>
      {m.smells.length === 0 && <p className="faint">No rule is hit here.</p>}
      <ol className="smells">
        {smells.map((s, i) => (
          <SmellItem
            key={s.id}
            s={s}
            place={m.path}
            title={titles[s.rule]}
            chosen={i === chosen}
            recorded={isRecorded(s)}
            onChoose={() => setChosen(i)}
            onRecord={() => record(s)}
          />
        ))}
      </ol>
      {smells.length < total && (
        <button type="button" className="quiet" onClick={() => setCount((n) => Math.min(500, n + 50))}>
          {figure(smells.length)} of {figure(total)}: show {total - smells.length > 50 ? '50 more' : 'all'}
        </button>
      )}
    </>
  )
}
