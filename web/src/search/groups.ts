import type { SearchLine } from '../api/types'
import { parentOf } from '../place/place'
import { counted } from '../theme/ink'
import type { Found } from './useCodeSearch'

/** Hits of one folder. */
export interface HitFolder {
  path: string
  files: SearchLine[]
  hits: number
}

/** Hits of one sort of files. */
export interface HitGroup {
  sort: 'own' | 'tests' | 'others'
  title: string
  folders: HitFolder[]
  hits: number
}

const titles: [HitGroup['sort'], string][] = [
  ['own', 'In the code'],
  ['tests', 'In tests'],
  ['others', 'In what is not judged'],
]

/** Hits by sort of file, own code first, and within by folder. */
export function hitGroups(files: readonly SearchLine[]): HitGroup[] {
  return titles
    .map(([sort, title]) => {
      const by = new Map<string, HitFolder>()
      let hits = 0
      for (const f of files) {
        if ((f.sort ?? 'own') !== sort || !f.path) continue
        const path = parentOf(f.path)
        const d = by.get(path) ?? { path, files: [], hits: 0 }
        by.set(path, d)
        d.files.push(f)
        d.hits += f.hits?.length ?? 0
        hits += f.hits?.length ?? 0
      }
      const folders = [...by.values()].sort((a, b) => (a.path < b.path ? -1 : 1))
      for (const d of folders) d.files.sort((a, b) => ((a.path ?? '') < (b.path ?? '') ? -1 : 1))
      return { sort, title, folders, hits }
    })
    .filter((g) => g.hits > 0)
}

/** How far a search is, in words. */
export function searchState(found: Found, q: string): string {
  if (found.problem) return found.problem
  const end = found.end
  if (!end) return found.q === q ? `${counted(found.files.length, 'file')} so far …` : '…'
  if (end.problem) return end.problem
  const lines = `${counted(end.total ?? 0, 'line')} in ${counted(end.files ?? 0, 'file')}`
  return end.more ? `${lines}, and there are more: narrow it` : lines
}
