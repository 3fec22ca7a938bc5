import type { Bundle, Drawing } from '../api/types'
import { PlaceLink } from '../place/PlaceLink'

/** The drawing's equal for those who do not see it. */
export function BundleList({ d, shown, onChoose }: { d: Drawing; shown: readonly Bundle[]; onChoose: (b: Bundle) => void }) {
  const levels = [...new Set(d.boxes.map((b) => b.level))].sort((a, b) => a - b)
  return (
    <ol className="levels">
      {levels.map((l) => (
        <li key={l}>
          <ul>
            {d.boxes
              .filter((b) => b.level === l)
              .map((b) => (
                <li key={b.path}>
                  <PlaceLink path={b.path} />{' '}
                  {shown
                    .filter((x) => x.from === b.path)
                    .map((x, i) => (
                      <span key={x.to + x.class}>
                        {i === 0 ? 'needs ' : ', '}
                        <button type="button" className="asLink" onClick={() => onChoose(x)}>
                          {x.to} ({x.count} {x.class})
                        </button>
                      </span>
                    ))}
                </li>
              ))}
          </ul>
        </li>
      ))}
    </ol>
  )
}
