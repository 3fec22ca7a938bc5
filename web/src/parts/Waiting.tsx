import { useEffect, useState } from 'react'

/** Lines where text will stand, shown only when it takes a while. */
export function Waiting() {
  const [late, setLate] = useState(false)
  useEffect(() => {
    const t = setTimeout(() => setLate(true), 300)
    return () => clearTimeout(t)
  }, [])
  if (!late) return null
  return (
    <div className="waiting" role="status" aria-label="Loading">
      {[62, 48, 80, 74, 55, 68].map((w, i) => (
        <span key={i} style={{ width: `${w}%` }} />
      ))}
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
