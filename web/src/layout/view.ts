import type { ViewEntry } from '../parts/view'

export const layout: ViewEntry = {
  id: 'layout',
  digit: '2',
  title: 'Layout',
  hint: 'its folders and what they hold',
  says: { codebase: 'its folders', folder: 'its folders', file: 'the files beside it, itself picked' },
  keys: [
    ['← →', 'fold or unfold a folder'],
    ['Enter', 'open what is picked'],
  ],
  legend: true,
  load: () => import('./Layout'),
}
