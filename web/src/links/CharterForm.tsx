import { useState } from 'react'
import { useChangeCharter } from '../api/changes'
import type { Charter, CharterState } from '../api/types'
import { useWhere } from '../place/place'
import { LayerRow, NewLayer } from './CharterLayers'
import { AreaRow, NewArea, NewException, NewThreshold } from './CharterParts'

type Change = Parameters<ReturnType<typeof useChangeCharter>['mutate']>[0]['change']

/** The charter as a form: each change goes into the text, which keeps its comments and its order. */
export function CharterForm({
  text,
  charter: told,
  state,
  onText,
}: {
  text: string
  charter: Charter | null
  state: CharterState
  onText: (t: string) => void
}) {
  const { where } = useWhere()
  const change = useChangeCharter(where.id)
  const [problem, setProblem] = useState('')
  // What the last change came to: it is there before the charter is held against the code.
  const [fresh, setFresh] = useState<{ text: string; charter: Charter | null } | null>(null)
  const charter = fresh && fresh.text === text ? fresh.charter : told
  const apply = (c: Change) =>
    change.mutate(
      { text, change: c },
      {
        onSuccess: (r) => {
          setProblem(r.faults.map((f) => f.text).join(' '))
          setFresh({ text: r.text, charter: r.charter ?? null })
          onText(r.text)
        },
        onError: (e) => setProblem(e.message),
      },
    )
  const layers = charter?.layers ?? []
  return (
    <div className="charterform">
      <label className="check">
        <input
          type="checkbox"
          checked={charter?.rings ?? false}
          onChange={(e) => apply({ what: 'rings', index: 0, drop: false, rings: e.target.checked })}
        />
        the layers are rings, the first the outermost
      </label>
      <table className="plain">
        <thead>
          <tr>
            <th scope="col">layer</th>
            <th scope="col">holds</th>
            <th scope="col">may depend on</th>
            <th scope="col" title="puts everything together, and holds no logic">
              wiring
            </th>
            <th />
          </tr>
        </thead>
        <tbody>
          {layers.map((l, i) => (
            <LayerRow
              key={l.name + l.holds.join()}
              layer={l}
              others={layers.map((o) => o.name).filter((n) => n !== l.name)}
              files={state.layers.find((x) => x.name === l.name)?.files ?? 0}
              onChange={(layer) => apply({ what: 'layer', index: i, drop: false, layer })}
              onDrop={() => apply({ what: 'layer', index: i, drop: true })}
            />
          ))}
          <NewLayer onAdd={(layer) => apply({ what: 'layer', index: -1, drop: false, layer })} />
        </tbody>
      </table>
      <h3>Kept apart</h3>
      <ul className="byhand">
        {(charter?.apart ?? []).map((a, i) => (
          <AreaRow
            key={a.name + a.places.join()}
            area={a}
            onChange={(apart) => apply({ what: 'apart', index: i, drop: false, apart })}
            onDrop={() => apply({ what: 'apart', index: i, drop: true })}
          />
        ))}
      </ul>
      <NewArea onAdd={(apart) => apply({ what: 'apart', index: -1, drop: false, apart })} />
      <h3>Exceptions</h3>
      <ul className="byhand">
        {(charter?.exceptions ?? []).map((x, i) => (
          <li key={x.from + x.to}>
            <span className="mono">{x.from}</span> may need <span className="mono">{x.to}</span>: {x.reason}
            {x.until && <> (until {x.until})</>}{' '}
            <button type="button" className="quiet" onClick={() => apply({ what: 'exception', index: i, drop: true })}>
              Take away
            </button>
          </li>
        ))}
      </ul>
      <NewException onAdd={(exception) => apply({ what: 'exception', index: -1, drop: false, exception })} />
      <h3>Thresholds</h3>
      <ul className="byhand">
        {Object.entries(charter?.thresholds ?? {}).map(([k, v]) => (
          <li key={k}>
            <span className="mono">{k}</span> {v}{' '}
            <button type="button" className="quiet" onClick={() => apply({ what: 'threshold', index: 0, drop: true, key: k })}>
              Take away
            </button>
          </li>
        ))}
      </ul>
      <NewThreshold onAdd={(key, value) => apply({ what: 'threshold', index: 0, drop: false, key, value })} />
      {problem && <p role="alert">{problem}</p>}
    </div>
  )
}
