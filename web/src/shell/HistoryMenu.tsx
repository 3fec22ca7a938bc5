import { useState } from 'react'
import { Menu } from '../parts/Menu'
import { useReview } from '../review/review'

/** How many steps are listed, the newest first. */
const listed = 12

/** What this reader did, each step of which can be taken back by name. */
export function HistoryMenu() {
  const { history, undo } = useReview()
  const [open, setOpen] = useState(false)
  if (history.length === 0) return null
  return (
    <Menu
      name="history"
      label="Done …"
      hint="What you did here: pick a step to take it back"
      open={open}
      onOpen={setOpen}
      items={[...history]
        .reverse()
        .slice(0, listed)
        .map((d) => ({ id: String(d.id), text: `Take back: ${d.name}`, run: () => undo(d) }))}
    />
  )
}
