import { useState } from 'react'
import type { Dependencies as Data } from '../api/types'
import { Ledger, type Column } from '../parts/ledger/Ledger'
import type { Sorting } from '../parts/ledger/moves'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { figure } from '../theme/ink'

type Package = Data['packages'][number]

const columns: Column<Package>[] = [
  {
    id: 'name',
    title: 'package',
    width: 'minmax(160px, 1fr)',
    value: (p) => p.name,
    cell: (p) => <span className="mono">{p.name}</span>,
  },
  {
    id: 'versions',
    title: 'version',
    width: '140px',
    value: (p) => p.versions.join(),
    cell: (p) => (
      <span
        className={p.versions.length > 1 ? 'mono unsure' : 'mono'}
        title={p.versions.length > 1 ? 'asked for in several versions' : ''}
      >
        {p.versions.join(', ') || '—'}
      </span>
    ),
  },
  { id: 'files', title: 'files', width: '56px', right: true, value: (p) => p.files, cell: (p) => figure(p.files) },
  {
    id: 'used',
    title: 'used in',
    width: 'minmax(200px, 1.4fr)',
    cell: (p) => (
      <span title={p.modules.join(', ')}>
        {p.modules.slice(0, 4).join(', ')}
        {p.modules.length > 4 && ` and ${p.modules.length - 4} more`} <PlaceLink path={p.path} line={p.line} max={30} />
      </span>
    ),
  },
]

/** What comes from outside, most used first. */
export function Packages({ data }: { data: Data }) {
  const { go } = useWhere()
  const [picked, setPicked] = useState('')
  const [sorting, setSorting] = useState<Sorting | null>(null)
  if (data.packages.length === 0) return null
  return (
    <section>
      <h2>
        Packages from outside <small>{figure(data.packages.length)}</small>
      </h2>
      <Ledger
        label="Packages from outside"
        columns={columns}
        rows={data.packages}
        idOf={(p) => p.name}
        picked={picked}
        onPick={setPicked}
        onOpen={(p) => go({ view: 'code', at: p.path, line: p.line })}
        sorting={sorting}
        onSort={setSorting}
        first={10}
      />
    </section>
  )
}
