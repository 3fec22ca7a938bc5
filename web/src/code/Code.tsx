import { useMemo } from 'react'
import { useCode, useMargin, useSettings } from '../api/queries'
import type { Code as CodeData } from '../api/types'
import { Failed, Waiting } from '../parts/Waiting'
import { PlaceActions } from '../place/PlaceActions'
import { useWhere } from '../place/place'
import { counted } from '../theme/ink'
import { Lists } from './Lists'
import { useDifferingLines } from './differing'
import type { Marked } from './marks'
import { useReadOnLeaving } from './readOnLeaving'
import { TextPane } from './TextPane'
import './code.css'

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
  const differs = useDifferingLines(c)
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
          <span className="faint">
            <kbd>Ctrl F</kbd> finds in it
          </span>
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
              differs={differs}
              onPick={(l, e) => pick({ pick: '', line: l, end: e })}
            />
          )}
          {!c.missing && c.lines === 0 && <p className="faint pad">This file is empty.</p>}
        </div>
      </div>
    </section>
  )
}
