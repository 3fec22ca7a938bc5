import { Link } from 'react-router'
import { useSection } from '../api/queries'
import type { Block, Section, Tag, Tie } from '../api/types'
import { Drawing } from '../parts/drawing/Drawing'
import { stay, urlOf, useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'
import { lookOf, roleLook, roleName, roleOrder, rolePatterns } from '../theme/roles'
import { SectionList } from './SectionList'
import './section.css'

/** The place cut open: what stands on what, who comes in above, what is kept below. */
export function SectionBlock() {
  const { where } = useWhere()
  const section = useSection(where)
  if (!section.data) return <div className="section waiting" aria-busy={section.isLoading} />
  if (section.data.parts.length === 0) return null
  return <Drawn x={section.data} />
}

function Drawn({ x }: { x: Section }) {
  const { where } = useWhere()
  const used = [...new Set(x.blocks.flatMap((b) => b.roles.map((r) => r.role)))].sort((a, b) => a - b)
  const marked = x.ties.some((t) => t.ring || t.breach)
  const query = new URLSearchParams({ at: x.place, ...(where.survey ? { survey: String(where.survey) } : {}) })
  return (
    <div className="sectioned">
      <Drawing
        className="section"
        label="Section: parts side by side, each needing what stands below"
        width={x.width}
        height={x.height}
        most={900}
        list={<SectionList x={x} />}
        exports={[{ text: 'SVG', href: `/api/codebases/${where.id}/export/section.svg?${query.toString()}` }]}
      >
        <Patterns />
        <text className="edge" x={20} y={12}>
          {x.in}
        </text>
        <text className="edge" x={20} y={x.ground + 15}>
          {x.out}
        </text>
        <line className="roof" x1={20} x2={x.width - 20} y1={x.roof} y2={x.roof} />
        <line className="ground" x1={20} x2={x.width - 20} y1={x.ground} y2={x.ground} />
        {x.parts.map((p) => (
          <Opens key={p.name + p.x} path={p.path} view="overview" label={`${p.name}: ${counted(p.lines, 'own line')}`}>
            <text className="part" x={p.x} y={x.roof - 7}>
              {p.name}
            </text>
          </Opens>
        ))}
        {x.ties.map((t, i) => (
          <OneTie key={i} t={t} />
        ))}
        {x.blocks.map((b) => (
          <OneBlock key={b.path + b.name + b.x} b={b} />
        ))}
        {x.tags.map((t) => (
          <OneTag key={t.text + t.x + t.y} t={t} />
        ))}
      </Drawing>
      <p className="legend section">
        {used.map((i) => (
          <span key={i}>
            <i className={roleLook(i)} /> {roleName(roleOrder, i)}
          </span>
        ))}
        <span>paler: assumed</span>
        {marked && <span className="against">vermilion: in a ring or against the charter</span>}
        {x.notes.map((n) => (
          <span key={n}>{n}</span>
        ))}
      </p>
    </div>
  )
}

/** The patterns of the roles, for what is drawn as SVG. */
function Patterns() {
  return (
    <defs>
      {rolePatterns.map(({ id, hue, pattern }) => (
        <pattern
          key={id}
          id={id}
          width={6}
          height={pattern === 'ruled' ? 4 : 6}
          patternUnits="userSpaceOnUse"
          patternTransform={pattern === 'hatched' ? 'rotate(45)' : undefined}
        >
          {pattern === 'hatched' && <rect width={3} height={6} fill={hue} />}
          {pattern === 'dotted' && <circle cx={3} cy={3} r={1.6} fill={hue} />}
          {pattern === 'ruled' && <rect width={6} height={1.6} fill={hue} />}
        </pattern>
      ))}
    </defs>
  )
}

/** What leads to a place; the whole of it can be reached by keyboard. */
function Opens({
  path,
  line = 0,
  view,
  label,
  children,
}: {
  path: string
  line?: number
  view: 'overview' | 'layout' | 'code' | 'journeys'
  label: string
  children: React.ReactNode
}) {
  const { where } = useWhere()
  return (
    <Link to={urlOf({ ...stay(where), view, at: path, line })} aria-label={label}>
      <title>{label}</title>
      {children}
    </Link>
  )
}

const isFile = (path: string) => /\.[A-Za-z0-9]+$/.test(path)

function OneBlock({ b }: { b: Block }) {
  const says = [
    `${b.path === '.' ? 'the codebase' : b.path}: ${counted(b.lines, 'own line')} in ${counted(b.files, 'file')}`,
    b.tests > 0 && `${figure(b.tests)} of tests`,
    b.foreign > 0 && `${figure(b.foreign)} that nobody here wrote`,
    b.ring && 'in a ring',
    b.breaches > 0 && `${figure(b.breaches)} against the charter`,
  ]
  const all = Math.max(1, b.lines, b.tests + b.foreign)
  const widths = b.roles.map((r) => ((b.w - 2) * r.lines) / Math.max(1, b.lines))
  return (
    <Opens path={b.path} view={isFile(b.path) ? 'code' : 'layout'} label={says.filter(Boolean).join(', ')}>
      <rect className={b.ring || b.breaches > 0 ? 'block against' : 'block'} x={b.x} y={b.y} width={b.w} height={b.h} />
      {(b.title ?? []).map((line, i) => (
        <text key={i} className="name" x={b.beside ? b.x + b.w + 4 : b.x + 4} y={b.y + 12 + 11 * i}>
          {line}
        </text>
      ))}
      {b.roles.map((r, i) => {
        const before = widths.slice(0, i).reduce((a, w) => a + w, b.x + 1)
        const width = widths[i] ?? 0
        const seen = (width * (r.lines - r.assumed)) / Math.max(1, r.lines)
        return (
          <g key={r.role} fill={lookOf(r.role)}>
            <rect x={before} y={b.y + b.h - 10} width={seen} height={9} />
            <rect className="assumed" x={before + seen} y={b.y + b.h - 10} width={Math.max(0, width - seen)} height={9} />
          </g>
        )
      })}
      <rect className="tests" x={b.x} y={b.y + b.h + 1} width={(b.w * b.tests) / all} height={2.5} />
      <rect className="foreign" x={b.x + (b.w * b.tests) / all} y={b.y + b.h + 1} width={(b.w * b.foreign) / all} height={2.5} />
    </Opens>
  )
}

function OneTie({ t }: { t: Tie }) {
  const says = `${t.from} needs ${t.to}: ${figure(t.count)} ${t.class}${t.breach ? ', against the charter' : ''}${t.ring ? ', in a ring' : ''}`
  const sort = t.breach ? 'breach' : t.ring ? 'ring' : t.class === 'code' ? 'code' : 'unseen'
  return (
    <g className={`tie ${sort}${t.faint ? ' faint' : ''}`}>
      <title>{says}</title>
      <path d={t.line} />
      {t.breach && <path className="middle" d={t.line} />}
      <path className="tip" d={t.tip} />
    </g>
  )
}

function OneTag({ t }: { t: Tag }) {
  const view = t.kind === 'routes' ? 'journeys' : isFile(t.path) ? 'code' : 'overview'
  return (
    <Opens path={t.path} line={t.line} view={view} label={`${t.full || t.text}, ${t.path}`}>
      {t.below && <rect className="kept" x={t.x} y={t.y} width={t.w} height={19} rx={9.5} />}
      <text className={t.below ? 'name' : 'comes'} x={t.below ? t.x + 7 : t.x} y={t.below ? t.y + 13.5 : t.y}>
        {t.text}
      </text>
    </Opens>
  )
}
