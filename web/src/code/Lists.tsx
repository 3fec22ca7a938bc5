import type { Code as CodeData, Definition, Use } from '../api/types'
import { More, useSome } from '../parts/More'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { RoleAndFeature } from '../review/ByHand'
import { figure } from '../theme/ink'
import { OneDefinition } from './OneDefinition'

/** What is in the file: its definitions, what it uses, and who uses it. */
export function Lists({ c }: { c: CodeData }) {
  return (
    <nav className="lists" aria-label="What is in this file">
      <RoleAndFeature path={c.path} role={c.role} feature={c.feature} origin={c.origin} />
      {c.layer && (
        <p className="faint">
          in the layer <span className="mono">{c.layer}</span>
        </p>
      )}
      {c.unread ? (
        <p className="unsure">{c.language} is not read: what this file defines, needs and calls is not known.</p>
      ) : (
        <Read c={c} />
      )}
    </nav>
  )
}

/** What was read of the file. */
function Read({ c }: { c: CodeData }) {
  const { where, pick } = useWhere()
  const defs = useSome(c.definitions, 400)
  const inside = (d: Definition) => where.line >= d.line && where.line <= d.end_line
  return (
    <>
      <OneDefinition />
      <details open>
        <summary>Defines {figure(c.definitions.length)}</summary>
        <ul>
          {defs.shown.map((d) => (
            <li
              key={`${d.line}:${d.parent}.${d.name}`}
              style={{ paddingLeft: d.parent ? 12 * Math.min(3, d.parent.split('.').length) : 0 }}
            >
              <button
                type="button"
                className={inside(d) ? 'asLink mono on' : 'asLink mono'}
                title={`${d.kind}, lines ${d.line} to ${d.end_line}${d.exported ? ', exported' : ''}`}
                onClick={() => pick({ pick: '', line: d.line, end: d.end_line })}
              >
                {d.name}
              </button>{' '}
              <small>{d.kind}</small>
            </li>
          ))}
          <More some={defs} />
        </ul>
      </details>
      <Uses title="Uses" list={c.uses} back={false} />
      <Uses title="Used by" list={c.used_by} back />
      {c.twins.length > 0 && (
        <details open>
          <summary>Twins {figure(c.twins.length)}</summary>
          <ul>
            {c.twins.map((t) =>
              t.members
                .filter((m) => m.path !== c.path)
                .slice(0, 12)
                .map((m) => (
                  <li key={`${m.path}:${m.line}`}>
                    <PlaceLink path={m.path} line={m.line} end={m.end_line} max={30} />{' '}
                    <small>
                      {m.name || 'the whole file'}, {Math.round(100 * t.alike)} % alike
                    </small>
                  </li>
                )),
            )}
          </ul>
        </details>
      )}
      {c.external.length > 0 && (
        <details>
          <summary>From outside {figure(c.external.length)}</summary>
          <ul>
            {c.external.map((e) => (
              <li key={`${e.package}:${e.line}`}>
                <button type="button" className="asLink mono" onClick={() => pick({ pick: '', line: e.line, end: e.line })}>
                  {e.package}
                </button>{' '}
                <small>{e.version ?? ''}</small>
              </li>
            ))}
          </ul>
        </details>
      )}
      {c.unresolved.length > 0 && (
        <details open>
          <summary>Leads nowhere {figure(c.unresolved.length)}</summary>
          <ul>
            {c.unresolved.map((u) => (
              <li key={`${u.text}:${u.line}`}>
                <button type="button" className="asLink mono" onClick={() => pick({ pick: '', line: u.line, end: u.line })}>
                  {u.text}
                </button>{' '}
                <small>{u.reason}</small>
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  )
}

function Uses({ title, list, back }: { title: string; list: Use[]; back: boolean }) {
  const { pick } = useWhere()
  const some = useSome(list, 200)
  return (
    <details open>
      <summary>
        {title} {figure(list.length)}
      </summary>
      <ul>
        {some.shown.map((u) => (
          <li key={`${u.path}:${u.line}:${u.kind}`}>
            <PlaceLink path={u.path} line={back ? u.line : 0} max={30} note={`${u.kind} ${u.text}`} />{' '}
            {!back && (
              <button
                type="button"
                className="quiet"
                title="the statement here"
                onClick={() => pick({ pick: '', line: u.line, end: u.line })}
              >
                {u.line}
              </button>
            )}{' '}
            <small title={u.names.join(', ')}>
              {u.kind === 'import' ? '' : `${u.kind} `}
              {u.names
                .filter((n) => n !== '*')
                .slice(0, 3)
                .join(', ')}
              {u.names.length > 3 ? ' …' : ''}
              {u.sure ? '' : ' (not sure)'}
            </small>
          </li>
        ))}
        <More some={some} />
        {list.length === 0 && <li className="faint">{back ? 'nothing found that needs it' : 'nothing inside the codebase'}</li>}
      </ul>
    </details>
  )
}
