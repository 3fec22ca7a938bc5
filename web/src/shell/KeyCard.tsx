import { Link } from 'react-router'
import { takeTyped } from '../parts/gate'
import { Sheet } from '../parts/Sheet'
import { KeyTable } from './KeyTable'
import { views } from './views'
import { YourSettings } from './YourSettings'

const everywhere = [
  ['↑ ↓', 'move in every list and in the code'],
  ['Enter', 'open what is picked'],
  ['Esc', 'close, or leave a field'],
  ['+ −', 'look closer or farther in a drawing'],
  ['Ctrl F', 'find in the text of a file'],
] as const

/** The complete card of keys, where they are also remapped, and the reader's other settings. */
export function KeyCard({ onClose }: { onClose: () => void }) {
  return (
    <Sheet title="Keys and settings" onClose={onClose} onOpen={() => takeTyped('keys')}>
      <div className="keycard">
        <section>
          <h3>Keys</h3>
          <KeyTable />
        </section>
        <section>
          <YourSettings />
          <p>
            <Link to="/settings">All settings on one page</Link>
          </p>
          <h3>In lists and drawings</h3>
          <dl>
            {everywhere.map(([k, text]) => (
              <KeyLine key={text} k={k} text={text} />
            ))}
            {views.flatMap((v) => v.keys.map(([k, does]) => <KeyLine key={v.id + k} k={k} text={`${v.title}: ${does}`} />))}
          </dl>
        </section>
      </div>
    </Sheet>
  )
}

function KeyLine({ k, text }: { k: string; text: string }) {
  return (
    <div>
      <dt>
        <span className="kbd fixed">{k}</span>
      </dt>
      <dd>{text}</dd>
    </div>
  )
}
