import { useEffect, useMemo, useRef } from 'react'
import { useCode, useMargin, useSettings } from '../api/queries'
import { useMarkRead } from '../api/changes'
import type { Code as CodeData, Definition, Use } from '../api/types'
import { Failed, Waiting } from '../parts/Waiting'
import { PlaceActions } from '../place/PlaceActions'
import { RoleAndFeature } from '../review/ByHand'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'
import { TextPane, type Marked } from './TextPane'

/** The text of a file with its definitions and what it needs. */
export default function Code() {
  const { where } = useWhere()
  const code = useCode(where, true)
  if (code.isError) return <Failed error={code.error} />
  if (!code.data || code.data.path !== where.at) return <Waiting />
  return <Shown key={code.data.path} c={code.data} />
}

function Shown({ c }: { c: CodeData }) {
  const { where, pick } = useWhere()
  const settings = useSettings().data
  const margin = useMargin({ ...where, at: c.path })
  useReadOnLeaving(c, where.id, settings?.person ?? '')
  const marks = useMemo(() => {
    const out: Marked[] = []
    if (margin.data?.path === c.path)
      for (const s of margin.data.smells)
        if (s.line && !s.silenced)
          out.push({ line: s.line, kind: 'smell', text: s.message.replaceAll('*', ''), strength: s.strength })
    for (const f of margin.data?.path === c.path ? margin.data.findings : [])
      if (f.line > 0) out.push({ line: f.line, kind: 'finding', text: f.title, strength: 0 })
    return out
  }, [margin.data, c.path])
  return (
    <section className="code">
      <div className="codebar">
        <span>
          <h1>{c.path}</h1>{' '}
          <span className="faint">
            {c.language || 'language unknown'}, {counted(c.lines, 'line')}
            {c.skipped && `, ${c.skipped}: not judged`}
          </span>
          {c.partial && <span className="unsure"> read in part: {c.partial}</span>}
        </span>
        <span className="codeacts">
          {where.line > 0 && (
            <button type="button" className="quiet" onClick={() => pick({ line: 0 })}>
              lines {where.line}
              {where.end > where.line ? `–${where.end}` : ''} ×
            </button>
          )}
          <PlaceActions path={c.path} view="code" />
        </span>
      </div>
      <div className="codebody">
        <Lists c={c} />
        <div className="pane">
          {c.missing && <p className="unsure pad">{c.missing}</p>}
          {(c.text || (!c.missing && c.lines === 0)) && (
            <TextPane
              text={c.text}
              language={c.language}
              line={where.line}
              end={where.end}
              marks={marks}
              onPick={(l, e) => pick({ pick: '', line: l, end: e })}
            />
          )}
          {!c.missing && c.lines === 0 && <p className="faint pad">This file is empty.</p>}
        </div>
      </div>
    </section>
  )
}

/**
 * Sets the read mark when a file is left after it was open for as long as
 * reading some of it takes.
 */
function useReadOnLeaving(c: CodeData, id: number, by: string) {
  const { mutate } = useMarkRead(id)
  const opened = useRef(0)
  useEffect(() => {
    opened.current = Date.now()
    const path = c.path
    const needed = Math.min(45_000, 4_000 + c.lines * 60)
    const read = c.read_mark
    return () => {
      if (!read && c.text && Date.now() - opened.current > needed) mutate({ path, read: true, by })
    }
  }, [c, by, mutate])
}

function Lists({ c }: { c: CodeData }) {
  const { where, pick } = useWhere()
  const inside = (d: Definition) => where.line >= d.line && where.line <= d.end_line
  return (
    <nav className="lists" aria-label="What is in this file">
      <RoleAndFeature path={c.path} role={c.role} feature={c.feature} origin={c.origin} />
      {c.layer && (
        <p className="faint">
          in the layer <span className="mono">{c.layer}</span>
        </p>
      )}
      <details open>
        <summary>Defines {figure(c.definitions.length)}</summary>
        <ul>
          {c.definitions.slice(0, 400).map((d) => (
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
    </nav>
  )
}

function Uses({ title, list, back }: { title: string; list: Use[]; back: boolean }) {
  const { pick } = useWhere()
  return (
    <details open>
      <summary>
        {title} {figure(list.length)}
      </summary>
      <ul>
        {list.slice(0, 300).map((u) => (
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
        {list.length === 0 && <li className="faint">{back ? 'nothing found that needs it' : 'nothing inside the codebase'}</li>}
      </ul>
    </details>
  )
}
