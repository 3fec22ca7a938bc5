/** The step of ink, 1 to 5, for a smell's strength between 0 and 1. */
export const inkStep = (strength: number): number => Math.min(5, Math.max(1, Math.ceil(strength * 5)))

/** A number with thin groups, as it stands in columns. */
export const figure = (n: number): string => n.toLocaleString('en-GB')

/** The day of a moment, in words. */
export const day = (at: string): string => new Date(at).toLocaleDateString('en-GB', { dateStyle: 'long' })

/** A count with its word: "1 file", "2 files". */
export const counted = (n: number, word: string, many = `${word}s`): string => `${figure(n)} ${n === 1 ? word : many}`

/** A score as it is shown: whole points, or a dash when it is not known. */
export const points = (v: number | null | undefined): string => (v === null || v === undefined ? '–' : String(Math.round(v)))

/** A path shortened in the middle to about max signs; its ends tell most. */
export function shortPath(path: string, max: number): string {
  if (path.length <= max) return path
  const parts = path.split('/')
  const last = parts[parts.length - 1] ?? ''
  if (parts.length < 3 || last.length + 4 >= max) {
    const keep = Math.max(4, Math.floor((max - 1) / 2))
    return `${path.slice(0, keep)}…${path.slice(-keep)}`
  }
  let head = parts[0] ?? ''
  if (head.length + last.length + 3 > max) return `…/${last}`
  let i = 1
  while (i < parts.length - 1 && head.length + (parts[i] ?? '').length + last.length + 4 <= max) head += `/${parts[i++]}`
  return i === parts.length - 1 ? path : `${head}/…/${last}`
}

const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']

/** A day written as 2026-06-11, as it stands in columns: "Jun 2026". */
export const spokenDay = (day: string): string => `${months[Number(day.slice(5, 7)) - 1] ?? ''} ${day.slice(0, 4)}`
