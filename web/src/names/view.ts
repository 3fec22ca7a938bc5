import type { ViewEntry } from '../parts/view'

export const names: ViewEntry = {
  id: 'names',
  digit: '7',
  title: 'Names',
  hint: 'the words, how they are written, and what they promise',
  says: { codebase: 'its vocabulary', folder: 'its vocabulary', file: 'its names' },
  keys: [['Enter', 'open a word, or close it again']],
  load: () => import('./Names'),
}
