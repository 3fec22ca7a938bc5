import type { ViewEntry } from '../parts/view'

export const smells: ViewEntry = {
  id: 'smells',
  digit: '8',
  title: 'Smells',
  hint: 'what was noticed, worked through',
  says: { codebase: 'all of them', folder: 'all below it', file: 'all in it' },
  keys: [
    ['Space', 'mark a smell, or take the mark away'],
    ['Enter', 'open a smell, or close it again'],
  ],
  load: () => import('./Smells'),
}
