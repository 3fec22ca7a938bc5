import type { ViewEntry } from '../parts/view'

export const journeys: ViewEntry = {
  id: 'journeys',
  digit: '5',
  title: 'Journeys',
  hint: 'what comes in, and what answers',
  says: { codebase: 'all that start in it', folder: 'all that start in it', file: 'those through it' },
  keys: [['Enter', 'open the line']],
  load: () => import('./Journeys'),
}
