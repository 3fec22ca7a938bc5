import { useEffect, useState } from 'react'
import type { SearchLine } from '../api/types'
import { searchCode, type Wanted } from './stream'

/** What was found so far. */
export interface Found {
  q: string
  files: SearchLine[]
  /** The last line of the answer, null while it still comes. */
  end: SearchLine | null
  problem: string
}

const nothing: Found = { q: '', files: [], end: null, problem: '' }

/** The hits in the code, as they come in. */
export function useCodeSearch({ id, survey, at, q, regex, exact }: Wanted): Found {
  const [found, setFound] = useState<Found>(nothing)
  useEffect(() => {
    const stop = new AbortController()
    const wait = setTimeout(() => {
      if (q.trim().length < 2) {
        setFound(nothing)
        return
      }
      const next: Found = { q, files: [], end: null, problem: '' }
      let due = 0
      const put = () => {
        window.clearTimeout(due)
        due = window.setTimeout(() => !stop.signal.aborted && setFound({ ...next, files: [...next.files] }), 40)
      }
      searchCode({ id, survey, at, q, regex, exact }, stop.signal, (l) => {
        if (l.done) next.end = l
        else next.files.push(l)
        put()
      }).catch((e: Error) => {
        next.problem = e.message
        put()
      })
    }, 120)
    return () => {
      clearTimeout(wait)
      stop.abort()
    }
  }, [q, regex, exact, at, id, survey])
  return found
}
