import { useMemo, useState } from 'react'
import type { Block, Section } from '../api/types'
import { Ledger, type Column } from '../parts/ledger/Ledger'
import { More, useSome } from '../parts/More'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { counted, figure } from '../theme/ink'
import { roleName, roleOrder } from '../theme/roles'

/** The same as a list, for those who would rather read it or cannot see it. */
export function SectionList({ x }: { x: Section }) {
  const { go } = useWhere()
  const [picked, setPicked] = useState('')
  const ties = useSome(x.ties, 40)
  const columns = useMemo<Column<Block>[]>(
    () => [
      { id: 'part', title: 'part', width: 'minmax(100px, 1fr)', cell: (b) => x.parts[b.part]?.name },
      {
        id: 'block',
        title: 'block, from the top',
        width: 'minmax(160px, 2fr)',
        cell: (b) => (
          <>
            <PlaceLink path={b.path} as={b.together > 0 ? b.name : undefined} />
            {b.ring && <small> in a ring</small>}
            {b.breaches > 0 && <small> {figure(b.breaches)} against the charter</small>}
          </>
        ),
      },
      { id: 'mostly', title: 'mostly', width: '110px', cell: (b) => mostly(b.roles) },
      { id: 'lines', title: 'own lines', width: '80px', right: true, cell: (b) => figure(b.lines) },
    ],
    [x],
  )
  const rows = useMemo(() => [...x.blocks].sort((a, b) => a.part - b.part || a.row - b.row || b.lines - a.lines), [x])
  return (
    <div className="equal">
      <Ledger
        label="Blocks of the section"
        columns={columns}
        rows={rows}
        idOf={(b) => `${b.part} ${b.path} ${b.name}`}
        picked={picked}
        onPick={setPicked}
        onOpen={(b) => go({ view: 'layout', at: b.path })}
        sorted
        first={60}
      />
      {x.ties.length > 0 && (
        <ul className="places">
          {ties.shown.map((t, i) => (
            <li key={i}>
              <PlaceLink path={t.from} /> needs <PlaceLink path={t.to} />{' '}
              <small>
                {counted(t.count, 'time')}, {t.class}
                {t.breach && ', against the charter'}
                {t.ring && ', in a ring'}
              </small>
            </li>
          ))}
          <More some={ties} />
        </ul>
      )}
    </div>
  )
}

/** The role with the most lines. */
export function mostly(roles: { role: number; lines: number }[]): string {
  const most = roles.reduce<{ role: number; lines: number } | null>((best, r) => (best && best.lines >= r.lines ? best : r), null)
  return most ? roleName(roleOrder, most.role) : ''
}
