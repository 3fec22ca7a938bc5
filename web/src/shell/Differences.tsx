import { useState } from 'react'
import { useBeside } from '../api/queries'
import type { Beside } from '../api/types'
import { useAddress } from '../place/place'
import { counted, figure } from '../theme/ink'

/** What differs between the place and the one beside it, in a sentence, and all of it on demand. */
export function Differences() {
  const { where } = useAddress()
  const [open, setOpen] = useState(true)
  const b = useBeside(where, where.beside ?? where)
  if (b.isError) return <p className="warn pad">{b.error.message}</p>
  if (!b.data) return <p className="differences faint">Comparing …</p>
  const told = b.data.figures.filter((f) => differs(f))
  return (
    <section className="differences" aria-label="Differences">
      <button type="button" className="asText" aria-expanded={open} onClick={() => setOpen(!open)}>
        {sentence(b.data)}
      </button>
      {open && told.length > 0 && (
        <dl>
          {told.map((f) => (
            <div key={f.what}>
              <dt>{f.what}</dt>
              <dd>
                {f.words || shown(f.here)} <span aria-label="against">|</span> {f.others || shown(f.there)}
                {f.here !== null && f.there !== null && <small> {signed(f.there - f.here)}</small>}
              </dd>
            </div>
          ))}
          <Names what="features only here" list={b.data.features.here} count={b.data.features.here_only} />
          <Names what="features only there" list={b.data.features.there} count={b.data.features.there_only} />
        </dl>
      )}
    </section>
  )
}

type Figure = Beside['figures'][number]

const differs = (f: Figure) => f.words !== f.others || shown(f.here) !== shown(f.there)

const shown = (v: number | null) => (v === null ? '–' : figure(Math.round(v)))

/** A difference with its sign. */
export const signed = (d: number): string => {
  const n = Math.round(d)
  return n === 0 ? '' : n > 0 ? `+${figure(n)}` : `−${figure(-n)}`
}

/** What two places have in common and what not, in one sentence. */
export function sentence(b: Beside): string {
  const f = b.files
  const all = f.same + f.changes + f.here_only + f.there_only
  if (all === f.same) return all === 1 ? 'The two files are alike to the letter.' : 'The two are alike to the letter.'
  if (f.same + f.changes === 0) return 'No file of the two has the same name below its place.'
  return [
    f.same > 0 && `${counted(f.same, 'file')} alike`,
    f.changes > 0 && `${figure(f.changes)} with other content`,
    f.here_only > 0 && `${figure(f.here_only)} only here`,
    f.there_only > 0 && `${figure(f.there_only)} only there`,
  ]
    .filter(Boolean)
    .join(', ')
    .concat('.')
}

function Names({ what, list, count }: { what: string; list: readonly string[]; count: number }) {
  if (count === 0) return null
  return (
    <div>
      <dt>{what}</dt>
      <dd title={list.join(', ')}>
        {list.slice(0, 6).join(', ')}
        {count > 6 && ` and ${figure(count - 6)} more`}
      </dd>
    </div>
  )
}
