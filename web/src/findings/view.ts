import type { ViewEntry } from '../parts/view'

export const findings: ViewEntry = {
  id: 'findings',
  digit: '9',
  title: 'Findings',
  hint: 'what was recorded',
  says: { codebase: 'all of them', folder: 'all below it', file: 'all on it' },
  keys: [
    ['Alt ↑ ↓', 'move a finding in the order'],
    ['Enter', 'open a finding, or close it again'],
  ],
  load: () => import('./Findings'),
}
