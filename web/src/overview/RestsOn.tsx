import type { Sheet } from '../api/types'
import { useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'

/** What was read and judged, what not, and how the sheet is handed on. */
export function RestsOn({ s }: { s: Sheet }) {
  const { where } = useWhere()
  // Who wrote what is not judged is said above; here is what could not be read.
  const unread = Object.entries(s.totals.skipped).filter(([k]) => ['binary', 'minified', 'too large'].includes(k))
  return (
    <section>
      <h2>What it rests on</h2>
      <p>
        {counted(s.totals.files, 'file')} in {counted(s.totals.folders, 'folder')}, {figure(s.totals.lines)} lines,{' '}
        {figure(s.totals.judged_lines)} of them judged
        {unread.length > 0 && `; not read: ${unread.map(([k, n]) => `${figure(n)} ${k}`).join(', ')}`}.{' '}
        {counted(s.resolved, 'import')} lead into the codebase, {figure(s.unresolved)} lead nowhere;{' '}
        {counted(s.totals.external_packages, 'package')} from outside.
      </p>
      {s.note_count > 0 && (
        <details>
          <summary>{counted(s.note_count, 'thing')} noted on the way in</summary>
          <ul>
            {s.notes.map((n) => (
              <li key={n.path + n.text}>
                <span className="mono">{n.path}</span> {n.text}
              </li>
            ))}
          </ul>
        </details>
      )}
      <p className="exports">
        Hand it on:{' '}
        <a href={`/api/codebases/${where.id}/export/survey.html${where.survey ? `?survey=${where.survey}` : ''}`} download>
          one offline page
        </a>
        <a href={`/api/codebases/${where.id}/export/survey.json${where.survey ? `?survey=${where.survey}` : ''}`} download>
          the survey as JSON
        </a>
        <a href={`/api/codebases/${where.id}/export/survey.md${where.survey ? `?survey=${where.survey}` : ''}`} download>
          as Markdown
        </a>
        <a
          href={`/api/codebases/${where.id}/export/section.svg?${new URLSearchParams({ at: s.place, ...(where.survey ? { survey: String(where.survey) } : {}) })}`}
          download
        >
          the section as SVG
        </a>
        <button type="button" className="asLink" onClick={() => window.print()}>
          print
        </button>
      </p>
    </section>
  )
}
