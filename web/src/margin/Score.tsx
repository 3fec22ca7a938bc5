import { useState } from 'react'
import { useRules } from '../api/queries'
import type { Legibility, Margin } from '../api/types'
import { points } from '../theme/ink'
import { liesAmong } from './among'

const facets = [
  ['Layout', 'layout'],
  ['Boundaries', 'boundaries'],
  ['Units', 'units'],
  ['Names', 'names'],
] as const

/** The score of a place in its facets; a facet opens its arithmetic. */
export function Score({ m, score }: { m: Pick<Margin, 'strains' | 'titles' | 'lower' | 'others'>; score: Legibility }) {
  const { strains, titles } = m
  const [open, setOpen] = useState('')
  const rules = useRules().data
  if (score.total === null) return <p className="faint">Nothing here is judged, so there is no score.</p>
  const titleOf = (slug: string) => titles[slug]?.title ?? rules?.find((r) => r.slug === slug)?.title ?? slug
  return (
    <section className="score" aria-label="Legibility">
      <h3>
        <span>Legibility</span>
        <span>{points(score.total)} of 100</span>
      </h3>
      {facets.map(([name, key]) => {
        const v = score[key]
        const mine = strains.filter((s) => s.facet === name)
        const sum = mine.reduce((a, s) => a + s.strain, 0)
        return (
          <div key={key}>
            <button
              type="button"
              className="facet"
              aria-expanded={open === name}
              onClick={() => setOpen(open === name ? '' : name)}
            >
              <span>{name}</span>
              <span className="track" aria-hidden="true">
                <em style={{ width: `${v ?? 0}%` }} />
              </span>
              <b>{points(v)}</b>
            </button>
            {open === name && (
              <div className="sum">
                {v === null ? (
                  <p>Unknown: too few of the imports here could be followed, or their language is not read yet.</p>
                ) : mine.length === 0 ? (
                  <p>No rule weighs on it: 100 · e⁰ = 100.</p>
                ) : (
                  <>
                    <table>
                      <thead>
                        <tr>
                          <th>rule</th>
                          <th>weight</th>
                          <th>share</th>
                          <th>strain</th>
                        </tr>
                      </thead>
                      <tbody>
                        {mine.map((s) => (
                          <tr
                            key={s.rule}
                            title={`${s.hits} hits; ${Math.round(s.touched)} of ${s.judged_lines} judged lines, each times its strength`}
                          >
                            <td>{titleOf(s.rule)}</td>
                            <td>{s.weight}</td>
                            <td>{((100 * s.touched) / s.judged_lines).toFixed(1)} %</td>
                            <td>{s.strain.toFixed(3)}</td>
                          </tr>
                        ))}
                      </tbody>
                    </table>
                    <p>
                      100 · e<sup>−{sum.toFixed(3)}</sup> = {points(v)}
                    </p>
                  </>
                )}
              </div>
            )}
          </div>
        )
      })}
      {m.others > 0 && <p className="faint rests">{liesAmong(m.lower, m.others)}</p>}
      <p className="faint rests">
        Rests on {score.judged_share === null ? '–' : Math.round(score.judged_share * 100)} % of the lines here; the rest is
        generated, vendored, binary or out of scope.
      </p>
      {score.tests !== null && (
        <small title="Tests are told apart: they do not enter the score.">
          Tests by their own rules: {points(score.tests)} of 100.
        </small>
      )}
    </section>
  )
}
