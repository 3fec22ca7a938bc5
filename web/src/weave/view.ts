import type { ViewEntry } from '../parts/view'

export const weave: ViewEntry = {
  id: 'weave',
  digit: '3',
  title: 'Weave',
  hint: 'roles by features: how it is cut',
  says: { codebase: 'its features and roles', folder: 'its features and roles', file: 'the files of its feature' },
  keys: [['Enter', 'look at what a cell holds']],
  load: () => import('./Weave'),
}
