import type { Regrouping } from '../api/types'
import { figure } from '../theme/ink'

/** Figures that stand today beside what they would be; `less` tells that less is better, `more` that more is. */
const rows: { name: string; of: (r: Regrouping['now']) => number | string | null; better?: 'less' | 'more' }[] = [
  { name: 'legibility', of: (r) => round(r.legibility.total), better: 'more' },
  { name: 'layout', of: (r) => round(r.legibility.layout), better: 'more' },
  { name: 'boundaries', of: (r) => round(r.legibility.boundaries), better: 'more' },
  { name: 'names', of: (r) => round(r.legibility.names), better: 'more' },
  { name: 'dependencies that leave their folder', of: (r) => r.across, better: 'less' },
  { name: 'smells', of: (r) => r.smells, better: 'less' },
  { name: 'folders', of: (r) => r.folders },
  { name: 'cut', of: (r) => r.cut || 'too little to tell' },
]

const round = (x: number | null | undefined) => (x === null || x === undefined ? null : Math.round(x * 10) / 10)

const shown = (x: number | string | null) =>
  x === null ? 'not known' : typeof x === 'number' && Number.isInteger(x) ? figure(x) : String(x)

function change(now: number | string | null, then: number | string | null, better?: 'less' | 'more') {
  if (typeof now !== 'number' || typeof then !== 'number' || now === then) return null
  const by = Math.round((then - now) * 10) / 10
  const good = better && (better === 'more' ? by > 0 : by < 0)
  return <span className={!better ? '' : good ? 'better' : 'worse'}>{`${by > 0 ? '+' : '−'}${shown(Math.abs(by))}`}</span>
}

/** What becomes of the moves of a draft, before anything is moved. */
export function Draft({ r }: { r: Regrouping }) {
  const not = r.moves.filter((m) => m.not)
  const files = r.moves.reduce((n, m) => n + m.files, 0)
  return (
    <section className="draft" aria-label="What becomes of it">
      <p>
        {r.moves.length - not.length} of {r.moves.length} moves can be made; {figure(files)} files go with them. Nothing is moved
        here; the charter, which speaks of today&rsquo;s folders, is left out of both columns.
      </p>
      <table className="plain">
        <thead>
          <tr>
            <th scope="col">what</th>
            <th scope="col">now</th>
            <th scope="col">then</th>
            <th scope="col">by</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.name}>
              <th scope="row">{row.name}</th>
              <td>{shown(row.of(r.now))}</td>
              <td>{shown(row.of(r.then))}</td>
              <td>{change(row.of(r.now), row.of(r.then), row.better)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {not.length > 0 && (
        <ul className="places">
          {not.map((m) => (
            <li key={`${m.from} ${m.to}`}>
              <span className="mono">{m.from}</span> can not go to <span className="mono">{m.to}</span>: {m.not}.
            </li>
          ))}
        </ul>
      )}
    </section>
  )
}
