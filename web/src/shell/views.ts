import { code } from '../code/view'
import { findings } from '../findings/view'
import { journeys } from '../journeys/view'
import { layout } from '../layout/view'
import { dependencies } from '../links/view'
import { overview } from '../overview/view'
import { names } from '../names/view'
import { parts } from '../partlist/view'
import type { ViewEntry } from '../parts/view'
import { smells } from '../smells/view'
import { weave } from '../weave/view'

/** Every view, in the order of the work. A view is added by a line here. */
export const views: readonly ViewEntry[] = [overview, layout, weave, dependencies, journeys, parts, names, smells, findings, code]
