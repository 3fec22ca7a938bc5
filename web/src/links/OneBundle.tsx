import type { Bundle } from '../api/types'
import { counted } from '../theme/ink'
import { klass } from './look'

/** All links of one class between two parts, as one line. */
export function OneBundle({
  b,
  broken,
  dim,
  near,
  chosen,
  onChoose,
}: {
  b: Bundle
  broken: boolean
  dim: boolean
  near: boolean
  chosen: boolean
  onChoose: (b: Bundle) => void
}) {
  // What a longer way tells as well is faint, unless somebody looks at one of its ends.
  const faint = b.implied && !broken && !near
  const state = [broken && 'broken', b.up && 'up', dim && 'dim', chosen && 'chosen', faint && 'implied'].filter(Boolean)
  return (
    <g className={`line ${klass(b.class)} ${state.join(' ')}`} onClick={() => onChoose(b)}>
      <title>
        {`${b.from} needs ${b.to}: ${counted(b.count, `${b.class} dependency`, `${b.class} dependencies`)}${b.cut ? ', the cut that opens the ring' : ''}${b.implied ? '; a longer way leads there too' : ''}`}
      </title>
      <path d={b.curve} className="hit" />
      {broken ? (
        // Against the charter: a double line.
        <>
          <path d={b.curve} className="bundle" strokeWidth={b.wide + 3} />
          <path d={b.curve} className="inner" strokeWidth={b.wide} />
        </>
      ) : (
        <path d={b.curve} className={`bundle ${klass(b.class)}`} strokeWidth={faint ? 1 : b.wide} />
      )}
      <path d={b.tip} className="tip" />
    </g>
  )
}
