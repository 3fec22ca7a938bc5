import type { ViewEntry } from '../parts/view'

export const code: ViewEntry = {
  id: 'code',
  digit: '0',
  title: 'Code',
  hint: 'the text of a file',
  says: { file: 'the text' },
  keys: [['Shift ↑ ↓', 'take more lines']],
  load: () => import('./Code'),
}
