import { useState } from 'react'
import type { Evidence, Sheet } from '../api/types'
import { PlaceLink } from '../place/PlaceLink'
import { counted, figure } from '../theme/ink'

/** A sentence; a click shows the places it rests on. */
export function Said({ text, evidence }: { text: string; evidence: Evidence[] }) {
  const [open, setOpen] = useState(false)
  if (evidence.length === 0) return <p className="say">{text}</p>
  return (
    <div className="said-so">
      <p className="say">
        <button type="button" className="asLink" aria-expanded={open} onClick={() => setOpen(!open)} title="what this rests on">
          {text}
        </button>
      </p>
      {open && <Places list={evidence} first={12} />}
    </div>
  )
}

/** The most telling sentences; the others are one step away. */
export function Sentences({ all }: { all: Sheet['sentences'] }) {
  const [every, setEvery] = useState(false)
  const shown = every ? all : all.slice(0, 6)
  return (
    <>
      {shown.map((x) => (
        <Said key={x.text} text={x.text} evidence={x.evidence} />
      ))}
      {all.length > shown.length && (
        <button type="button" className="quiet" onClick={() => setEvery(true)}>
          {counted(all.length - shown.length, 'further sentence')}
        </button>
      )}
    </>
  )
}

/** Places, the first of them at once. */
export function Places({ list, first }: { list: Evidence[]; first: number }) {
  const [all, setAll] = useState(false)
  const shown = all ? list : list.slice(0, first)
  return (
    <ul className="places">
      {shown.map((e, i) => (
        <li key={i}>
          <PlaceLink path={e.path} line={e.line} max={52} /> <small>{e.note}</small>
        </li>
      ))}
      {list.length > shown.length && (
        <li>
          <button type="button" className="quiet" onClick={() => setAll(true)}>
            {figure(list.length - shown.length)} more
          </button>
        </li>
      )}
    </ul>
  )
}

/** Places, each with why it is named. */
export function Reasons({ list }: { list: Sheet['read_first'] }) {
  return (
    <ul className="places">
      {list.map((r) => (
        <li key={r.path + r.why}>
          <PlaceLink path={r.path} line={r.line} max={46} /> <small>{r.why}</small>
        </li>
      ))}
    </ul>
  )
}

/** Names in a row, each leading to the line that tells of it. */
export function Rostered({ list }: { list: Evidence[] }) {
  const [all, setAll] = useState(false)
  const shown = all ? list : list.slice(0, 12)
  return (
    <>
      {shown.map((e) => (
        <PlaceLink key={e.note} path={e.path} line={e.line} as={e.note} />
      ))}
      {list.length > shown.length && (
        <button type="button" className="quiet" onClick={() => setAll(true)}>
          {figure(list.length - shown.length)} more
        </button>
      )}
    </>
  )
}
