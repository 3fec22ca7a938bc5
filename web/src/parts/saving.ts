import { useState } from 'react'

/** How something that is being saved is going, for the place where it was changed. */
export function useSaving() {
  const [error, setError] = useState<Error | null>(null)
  const [busy, setBusy] = useState(false)
  const run = (saving: Promise<unknown>, then?: () => void) => {
    setError(null)
    setBusy(true)
    saving
      .then(() => then?.())
      .catch((e: unknown) => setError(e as Error))
      .finally(() => setBusy(false))
  }
  return { run, error, busy }
}
