import { useEffect, useState } from 'react'

/** What is said of a wait, by how long it has been: nothing, that there is one, why. */
const said = [300, 1500]

/** Shown while a view is fetched: at once nothing, then its outline, then why it takes so long. */
export function Waiting() {
  const [stage, setStage] = useState(0)
  useEffect(() => {
    const timers = said.map((ms, i) => setTimeout(() => setStage(i + 1), ms))
    return () => timers.forEach(clearTimeout)
  }, [])
  if (stage === 0) return null
  return (
    <div className="waiting" role="status" aria-label="Loading">
      {[62, 48, 80, 74, 55, 68].map((w, i) => (
        <span key={i} style={{ width: `${w}%` }} />
      ))}
      {stage > 1 && <p className="faint">This is being worked out; the next time it is at hand.</p>}
    </div>
  )
}

/** What went wrong with a view, in words. */
export function Failed({ error }: { error: Error }) {
  return (
    <section className="empty" role="alert">
      <h1>This can not be shown</h1>
      <p>{error.message}</p>
    </section>
  )
}
