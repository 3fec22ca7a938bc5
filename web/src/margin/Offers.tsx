import { useMemo, useState } from 'react'
import { usePeople } from '../api/queries'
import { useWhere } from '../place/place'
import { useReview } from '../review/review'
import { asking, type Ask } from './remark'

const nobody: string[] = []

/** Puts what was chosen in place: its sign and value, the text without it, and where the cursor stands then. */
type Take = (sign: Ask['sign'], value: string, rest: string, cursor: number) => void

/** What may be meant by what is being typed behind @ or #, and which of it is chosen. */
export function useOffers(text: string, cursor: number, onTake: Take) {
  const { where } = useWhere()
  const { person } = useReview()
  const data = usePeople(where.id).data
  const [choice, setChoice] = useState(0)
  const [dismissed, setDismissed] = useState(-1)
  const ask = asking(text, cursor)
  const open = ask && ask.start !== dismissed ? ask : null
  const known = useMemo(() => {
    const people = new Set(data?.people ?? nobody)
    if (person) people.add(person)
    return { '@': [...people].sort(), '#': data?.labels ?? nobody }
  }, [data, person])
  const list = useMemo(() => {
    if (!open) return []
    const word = open.word.trim()
    const fit = known[open.sign].filter((k) => k.toLowerCase().includes(word.toLowerCase())).slice(0, 6)
    return word && !fit.includes(word) ? [...fit, word] : fit
  }, [open, known])
  const take = (value: string) => {
    if (!open) return
    const rest = (text.slice(0, open.start) + text.slice(cursor)).replace(/ {2,}/g, ' ')
    onTake(open.sign, value, rest, open.start)
    setChoice(0)
  }
  /** Acts on a key while there are offers; it reports whether the key was for them. */
  const press = (e: React.KeyboardEvent): boolean => {
    if (list.length === 0) return false
    const step = { ArrowDown: 1, ArrowUp: -1 }[e.key]
    if (step) setChoice((choice + step + list.length) % list.length)
    else if (e.key === 'Enter' || e.key === 'Tab') take(list[Math.min(choice, list.length - 1)] ?? '')
    else if (e.key === 'Escape') {
      setDismissed(open?.start ?? -1)
      e.stopPropagation()
    } else return false
    e.preventDefault()
    return true
  }
  return {
    sign: open?.sign ?? '#',
    list,
    choice,
    known,
    take,
    press,
    first: () => setChoice(0),
    reset: () => setDismissed(-1),
  }
}

export function Offers({ offers }: { offers: ReturnType<typeof useOffers> }) {
  if (offers.list.length === 0) return null
  return (
    <ul id="offers" className="offers" role="listbox" aria-label={offers.sign === '@' ? 'People' : 'Labels'}>
      {offers.list.map((o, i) => (
        <li
          key={o}
          id={`offer-${i}`}
          role="option"
          aria-selected={i === offers.choice}
          onPointerDown={(e) => (e.preventDefault(), offers.take(o))}
        >
          {offers.sign}
          {o}
          {!offers.known[offers.sign].includes(o) && <small> new</small>}
        </li>
      ))}
    </ul>
  )
}
