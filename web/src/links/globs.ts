/** What a field parts by commas. */
export const split = (s: string) =>
  s
    .split(',')
    .map((x) => x.trim())
    .filter(Boolean)
