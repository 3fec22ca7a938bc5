import { Link } from 'react-router'
import { shortPath } from '../theme/ink'
import { stay, urlOf, useWhere } from './place'

/**
 * A path that leads to its place. Whether it is a file is told by the line or
 * by its form: a folder's page redirects when it turns out to be a file.
 */
export function PlaceLink({
  path,
  line = 0,
  end = 0,
  max = 60,
  note,
  as,
}: {
  path: string
  line?: number
  end?: number
  max?: number
  note?: string
  /** What stands there instead of the path. */
  as?: string
}) {
  const { where } = useWhere()
  const to =
    line > 0 || /\.[A-Za-z0-9]+$/.test(path)
      ? urlOf({ ...stay(where), view: 'code', at: path, line, end })
      : urlOf({ ...stay(where), view: 'layout', at: path })
  // The line is what leads there: it takes its room first.
  const at = line > 0 && !as ? `:${line}${end > line ? `–${end}` : ''}` : ''
  return (
    <Link className="place mono" to={to} title={as ? `${path}:${line}` : note ? `${path}: ${note}` : path}>
      {as ?? (path === '.' ? 'the codebase' : shortPath(path, max - at.length))}
      {at}
    </Link>
  )
}
