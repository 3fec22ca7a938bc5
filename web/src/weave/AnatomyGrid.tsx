import { useBuilt } from '../api/queries'
import type { Built } from '../api/types'
import { Failed, Waiting } from '../parts/Waiting'
import { useEntering } from '../parts/gate'
import { PlaceLink } from '../place/PlaceLink'
import { nameOf, useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'
import { inSight } from './joins'

type Feature = Built['features'][number]

/** The codebase's own sorts of part down, features across; a feature opened shows its files beside the specimen's. */
export function AnatomyGrid({ feature, words, width }: { feature: string; words: string; width: number }) {
  const { where, show } = useWhere()
  const built = useBuilt(where, true)
  useEntering(built.isSuccess)
  if (built.isError) return <Failed error={built.error} />
  if (!built.data) return <Waiting />
  const b = built.data
  if (b.features.length === 0)
    return (
      <div className="empty">
        <p className="say">No two features here have a sort of part in common.</p>
      </div>
    )
  const specimen = b.features.find((f) => f.specimen)
  const open = b.features.find((f) => f.name === feature) ?? specimen ?? b.features[0]
  const named = b.features.filter((f) => f.name.includes(words.toLowerCase()))
  const { shown, column } = inSight(named, open, width)
  const walk = (e: React.KeyboardEvent) => {
    const step = { ArrowRight: 1, ArrowLeft: -1 }[e.key]
    if (!step || e.ctrlKey || e.metaKey || e.altKey || !open) return
    const next = shown[Math.max(0, Math.min(shown.length - 1, shown.indexOf(open) + step))]
    if (next) show({ feature: next.name, role: '' })
    e.preventDefault()
  }
  return (
    <>
      <div className="grid" onKeyDown={walk}>
        <table
          tabIndex={0}
          data-focus
          className="anatomy narrow"
          style={{ '--column': `${column}px` } as React.CSSProperties}
          aria-label="Sorts of part by features; arrows move from feature to feature"
        >
          <thead>
            <tr>
              <td />
              {shown.map((f) => (
                <th key={f.name} scope="col" className={f === open ? 'picked' : ''}>
                  <button type="button" tabIndex={-1} title={f.name} onClick={() => show({ feature: f.name, role: '' })}>
                    {f.name}
                    {f.specimen && ' ◆'}
                  </button>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {b.parts.map((part, i) => (
              <tr key={part}>
                <th scope="row">{part}</th>
                {shown.map((f) => (
                  <td
                    key={f.name}
                    className={`${f.missing.includes(i) ? 'gap' : ''}${f === open ? ' picked' : ''}`}
                    title={f.missing.includes(i) ? `${f.name} has no ${part}, which most features have` : undefined}
                  >
                    {f.parts[i] ? figure(f.parts[i] ?? 0) : f.missing.includes(i) ? <span className="hidden">lacks it</span> : ''}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="faint">
        {specimen && '◆ is built as most are: read it first. '}A hatched cell is a part that most features have and this one has
        not.
        {shown.length < named.length && ` ${counted(named.length - shown.length, 'smaller feature')} are a name away.`}
        {b.more > 0 && ` ${counted(b.more, 'feature')} ${b.more === 1 ? 'has' : 'have'} no part that another has as well.`}
      </p>
      <div className="besides">
        {open && <Files f={open} parts={b.parts} />}
        {specimen && specimen !== open && <Files f={specimen} parts={b.parts} />}
      </div>
    </>
  )
}

/** The files of a feature in reading order. */
function Files({ f, parts }: { f: Feature; parts: readonly string[] }) {
  return (
    <section className="told">
      <h2>
        {f.name} {f.specimen && <small>built as most are</small>}
      </h2>
      {f.missing.length > 0 && <p>It has no {f.missing.map((i) => parts[i]).join(' and no ')}, which most features have.</p>}
      <ol className="places">
        {f.files.map((x) => (
          <li key={x.path}>
            <span className={x.assumed ? 'part faint' : 'part'}>{x.part || x.role}</span>{' '}
            <PlaceLink path={x.path} as={nameOf(x.path)} /> <small>{counted(x.lines, 'line')}</small>
          </li>
        ))}
      </ol>
      {f.total > f.files.length && (
        <p className="faint">
          {f.files.length} of {figure(f.total)} files.
        </p>
      )}
    </section>
  )
}
