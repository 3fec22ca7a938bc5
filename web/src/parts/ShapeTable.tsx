import { useShape } from '../api/queries'
import { PlaceLink } from '../place/PlaceLink'
import { useWhere } from '../place/place'
import { counted, shortPath } from '../theme/ink'
import { fieldText, rowsOf, sayBeside, type FieldRow } from './shapes'

/** How many others stand beside a shape at once. */
const mostBeside = 5

/** A type beside others that are about the same, field by field; what differs stands out, what is missing is a gap. */
export function ShapeTable({ path, line }: { path: string; line: number }) {
  const { where } = useWhere()
  const shape = useShape({ ...where, at: path }, line)
  if (shape.isError) return <p className="warn">{shape.error.message}</p>
  const o = shape.data
  if (!o || o.path !== path) return <p className="faint">…</p>
  if (o.fields.length === 0) return <p className="faint">No field of it can be read.</p>
  if (o.beside.length === 0)
    return (
      <p className="faint">{counted(o.fields.length, 'field')}; nothing else is about the same by its name and has fields.</p>
    )
  const beside = o.beside.slice(0, mostBeside)
  return (
    <div className="shapetable" role="region" tabIndex={0} aria-label={`Fields of ${o.name} beside others`}>
      <table className="plain">
        <thead>
          <tr>
            <th scope="col">field</th>
            {[o, ...beside].map((s, k) => (
              <th key={`${s.path}:${s.line}`} scope="col">
                <PlaceLink path={s.path} line={s.line} as={s.name} />
                <small title={s.path}>{shortPath(s.path, 26)}</small>
                {k > 0 && <small>{beside.slice(k - 1, k).map(sayBeside)}</small>}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rowsOf(o, beside).map((r) => (
            <tr key={`${r.name} ${r.own ? 'own' : 'other'}`}>
              <th scope="row" className="mono">
                {r.name}
              </th>
              <Own r={r} path={o.path} />
              {r.others.map((x, k) => (
                <td key={k} className={x ? (x.how.length > 0 ? 'unsure' : undefined) : 'gap'}>
                  {x ? (
                    <>
                      <PlaceLink path={beside[k]?.path ?? ''} line={x.field.line} as={fieldText(x.field)} />
                      {x.how.length > 0 && <small> {x.how.join(', ')}</small>}
                    </>
                  ) : (
                    'missing'
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {o.beside.length > mostBeside && (
        <p className="faint">{counted(o.beside.length - mostBeside, 'further one')} less alike.</p>
      )}
    </div>
  )
}

function Own({ r, path }: { r: FieldRow; path: string }) {
  return r.own ? (
    <td>
      <PlaceLink path={path} line={r.own.line} as={fieldText(r.own)} />
    </td>
  ) : (
    <td className="gap">missing</td>
  )
}
