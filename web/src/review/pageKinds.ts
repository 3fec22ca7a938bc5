/** What the kinds of pages are called where one is begun. */
export const kinds = [
  { kind: 'guide', name: 'Guide', says: 'for newcomers, begun from what is known' },
  { kind: 'report', name: 'Report', says: 'the verdict, with what was found in the order set' },
  { kind: 'decision', name: 'Decision', says: 'a choice, its alternatives and its reason' },
  { kind: 'regrouping', name: 'Regrouping', says: 'a draft of other homes for files, with what becomes of it' },
] as const

/** The name of a kind. */
export const kindName = (kind: string) => kinds.find((k) => k.kind === kind)?.name ?? kind
