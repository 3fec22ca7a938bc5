/** Who may have written a file, and how that is said. */
export const origins = [
  ['own', 'own: written here'],
  ['vendored', 'vendored: by others'],
  ['generated', 'generated: by a tool'],
  ['built', 'built from other files'],
  ['scaffold', 'scaffold: a starter’s'],
  ['data', 'data in files of code'],
] as const
