import type { Role } from '../api/types'

/**
 * How each role is drawn in a bar, by its index in the legend: a mineral hue
 * and a pattern, in the fixed order from a system's outside to its inside.
 */
const looks = [
  'slate solid', // entry
  'slate ruled', // facade
  'slate hatched', // routing
  'slate dotted', // handler
  'lagoon solid', // view
  'lagoon hatched', // state
  'copper solid', // logic
  'copper hatched', // message
  'copper dotted', // model
  'copper ruled', // structure
  'straw ruled', // format
  'straw solid', // data access
  'straw hatched', // schema
  'straw dotted', // platform
  'rosewood solid', // helper
  'lagoon dotted', // style
  'rosewood dotted', // asset
  'rosewood hatched', // translation
  'chalk solid', // config
  'chalk hatched', // script
  'chalk ruled', // test
  'chalk dotted', // docs
]

/** The classes that draw the role with that index; -1 is a role not known. */
export const roleLook = (index: number): string => (index < 0 ? 'role none' : `role ${looks[index] ?? 'none'}`)

/** The patterns of those looks that are not solid, for drawings; hues are those of the theme. */
export const rolePatterns = looks
  .map((look) => look.split(' ') as [string, string])
  .filter(([, pattern]) => pattern !== 'solid')
  .map(([hue, pattern]) => ({ id: `role-${hue}-${pattern}`, hue: `var(--j-colors-${hue})`, pattern }))

/** How a role fills a shape of a drawing, by its index in the legend. */
export const lookOf = (index: number): string => {
  const [hue, pattern] = (looks[index] ?? '').split(' ')
  if (!hue) return 'none'
  return pattern === 'solid' ? `var(--j-colors-${hue})` : `url(#role-${hue}-${pattern})`
}

/** What a role is called in the legend. */
export const roleName = (roles: readonly Role[], index: number): string =>
  index < 0 ? 'role unknown' : (roles[index] ?? 'role unknown')

/** The fixed order of the roles, in which their looks are given. */
export const roleOrder: readonly Role[] = [
  'entry',
  'facade',
  'routing',
  'handler',
  'view',
  'state',
  'logic',
  'message',
  'model',
  'structure',
  'format',
  'data access',
  'schema',
  'platform',
  'helper',
  'style',
  'asset',
  'translation',
  'config',
  'script',
  'test',
  'docs',
]
