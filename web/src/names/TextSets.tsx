import type { TextList } from '../api/types'
import { useWhere } from '../place/place'
import { counted, figure, shortPath } from '../theme/ink'
import { saySet, shareOf } from './byName'

/** Up to how many catalogues show their languages unasked, and how many languages each. */
const mostDrawn = 2
const mostTongues = 24

/** The catalogues with the share of their texts that each language has, the emptiest first. */
export function TextSets({ sets, set }: { sets: TextList['sets']; set: string }) {
  const { show } = useWhere()
  const few = sets.length <= mostDrawn
  return (
    <ul className="textsets">
      {sets.slice(0, 6).map((s) => (
        <li key={s.name}>
          <button type="button" aria-pressed={set === s.name} onClick={() => show({ set: set === s.name ? '' : s.name })}>
            <span className="mono" title={s.name}>
              {shortPath(s.name, 46)}
            </span>
          </button>{' '}
          <span className="faint">{saySet(s)}</span>
          <span className="tongues" hidden={!few && set !== s.name}>
            {[...s.tongues]
              .sort((a, b) => a.has - b.has)
              .slice(0, mostTongues)
              .map((t) => (
                <span key={t.name} title={`${t.path}: ${figure(t.has)} of ${counted(s.keys, 'text')}`}>
                  <i className="mono">{t.name}</i>
                  <span className="track">
                    <em style={{ width: `${shareOf(t.has, s.keys)}%` }} />
                  </span>
                  {shareOf(t.has, s.keys)} %
                </span>
              ))}
            {s.tongues.length > mostTongues && (
              <span className="faint">and {figure(s.tongues.length - mostTongues)} with more</span>
            )}
          </span>
        </li>
      ))}
      {sets.length > 6 && <li className="faint">{counted(sets.length - 6, 'more catalogue')}; words narrow the list.</li>}
    </ul>
  )
}
