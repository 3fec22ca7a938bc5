import type { CallEnd } from '../api/types'
import { PlaceLink } from '../place/PlaceLink'
import { nearName } from '../place/place'
import { More, useSome } from './More'

/** What is done with it, where it is no plain call. */
const kinds: Record<string, string> = {
  construct: 'built ',
  render: 'drawn ',
  inherit: 'built upon ',
  inject: 'handed in ',
}

/** Definitions at the other end of calls, the first of them at once. */
export function EndList({ list, own, none }: { list: readonly CallEnd[]; own: string; none: string }) {
  const some = useSome(list, 12)
  return (
    <ul>
      {some.shown.map((e) => (
        <li key={`${e.path} ${e.name} ${e.kind}`}>
          <PlaceLink path={e.path} line={e.line} as={nearName(e.name) || 'top of the file'} />{' '}
          <small title={e.path}>
            {kinds[e.kind] ?? ''}
            {e.path === own ? '' : e.path.slice(e.path.lastIndexOf('/') + 1)}
            {e.sure ? '' : ' (may be)'}
          </small>
        </li>
      ))}
      <More some={some} />
      {list.length === 0 && none && <li className="faint">{none}</li>}
    </ul>
  )
}
