import { useMemo, useState } from 'react'
import type { SearchLine } from '../api/types'
import { counted, figure, shortPath } from '../theme/ink'
import { hitGroups, type HitFolder } from './groups'

/** Hits in the code by sort and folder; each folder folds. */
export function CodeHits({ files, onOpen }: { files: readonly SearchLine[]; onOpen: (path: string, line: number) => void }) {
  const groups = useMemo(() => hitGroups(files), [files])
  return (
    <>
      {groups.map((g) => (
        <section key={g.sort} className="hitsort">
          <h4>
            {g.title} <small>{counted(g.hits, 'line')}</small>
          </h4>
          {g.folders.map((d) => (
            <Folder key={d.path} d={d} open={g.sort === 'own' || groups.length === 1} onOpen={onOpen} />
          ))}
        </section>
      ))}
    </>
  )
}

/** How many lines of a folder are shown before the rest is asked for. */
const atFirst = 40

function Folder({ d, open, onOpen }: { d: HitFolder; open: boolean; onOpen: (path: string, line: number) => void }) {
  const [all, setAll] = useState(false)
  const lines = d.files.flatMap((f) => (f.hits ?? []).map((h) => ({ f, h })))
  const shown = all ? lines : lines.slice(0, atFirst)
  const cut = d.files.some((f) => f.cut)
  return (
    <details className="hitfolder" open={open}>
      <summary className="mono">
        {d.path === '.' ? 'top folder' : d.path} <small>{figure(d.hits)}</small>
      </summary>
      {shown.map(({ f, h }) => (
        <button
          key={`${f.path}:${h.line}`}
          type="button"
          data-hit
          title={`${f.path}:${h.line}`}
          onClick={() => onOpen(f.path ?? '', h.line)}
        >
          <span className="mono faint">
            {shortPath((f.path ?? '').slice(d.path === '.' ? 0 : d.path.length + 1), 28)}:{h.line}
          </span>
          <Line text={h.text} start={h.start} end={h.end} />
        </button>
      ))}
      {shown.length < lines.length && (
        <button type="button" className="quiet" onClick={() => setAll(true)}>
          {figure(shown.length)} of {figure(lines.length)}: show all
        </button>
      )}
      {cut && <p className="faint">Some files hold more lines than the first fifty; open them and search there.</p>}
    </details>
  )
}

const decoder = new TextDecoder()
const encoder = new TextEncoder()

/** A line with its hit marked; offsets count bytes. */
function Line({ text, start, end }: { text: string; start: number; end: number }) {
  const bytes = encoder.encode(text)
  const part = (a: number, b?: number) => decoder.decode(bytes.slice(a, b))
  return (
    <code>
      {part(0, start)}
      <mark>{part(start, end)}</mark>
      {part(end)}
    </code>
  )
}
