import type { ViewEntry } from '../parts/view'

export const parts: ViewEntry = {
  id: 'parts',
  digit: '6',
  title: 'Parts',
  hint: 'what it is built of, and what each does',
  says: { codebase: 'its parts', folder: 'its parts', file: 'its definitions' },
  keys: [['Enter', 'open a part, or close it again']],
  load: () => import('./Parts'),
}
