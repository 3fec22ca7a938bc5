import type { ViewEntry } from '../parts/view'

export const dependencies: ViewEntry = {
  id: 'dependencies',
  digit: '4',
  title: 'Dependencies',
  hint: 'what needs what, in levels',
  says: { codebase: 'its modules', folder: 'its modules', file: 'its neighbours' },
  keys: [['Enter', 'open a box, or close it again']],
  load: () => import('./Dependencies'),
}
