import type { ViewEntry } from '../parts/view'

export const overview: ViewEntry = {
  id: 'overview',
  digit: '1',
  title: 'Overview',
  hint: 'what it is, on one sheet',
  says: { codebase: 'the sheet for all of it', folder: 'the sheet for the folder', file: 'its summary' },
  keys: [],
  load: () => import('./Overview'),
}
