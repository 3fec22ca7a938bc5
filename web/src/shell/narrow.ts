import { useEffect, useState } from 'react'

/** Whether the page is too narrow for the margin: below 900 pixels it folds by itself. */
export function useNarrow(): boolean {
  const [narrow, setNarrow] = useState(() => window.matchMedia('(max-width: 899px)').matches)
  useEffect(() => {
    const m = window.matchMedia('(max-width: 899px)')
    const change = () => setNarrow(m.matches)
    m.addEventListener('change', change)
    return () => m.removeEventListener('change', change)
  }, [])
  return narrow
}
