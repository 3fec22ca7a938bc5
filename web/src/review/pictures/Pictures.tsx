import { useRef, useState } from 'react'
import { usePictures } from '../../api/queries'
import { useSaving } from '../../parts/saving'
import { useWhere } from '../../place/place'
import { useReview } from '../review'
import type { Tie } from './boxes'
import { OnePicture } from './OnePicture'
import './pictures.css'

/** Pictures of the screen that a part draws or a route answers with: dropped here, with boxes tied to parts. */
export function Pictures({ at, name, ties }: { at: string; name: string; ties: readonly Tie[] }) {
  const { where } = useWhere()
  const review = useReview()
  const { run, error, busy } = useSaving()
  const [over, setOver] = useState(false)
  const field = useRef<HTMLInputElement>(null)
  const list = usePictures(where.id, at, name).data ?? []
  const put = (file: File | null | undefined) => file && run(review.addPicture(at, name, file))
  return (
    <section
      className={over ? 'pictures over' : 'pictures'}
      aria-label={`Pictures of ${name}`}
      onDragOver={(e) => {
        e.preventDefault()
        setOver(true)
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => {
        e.preventDefault()
        setOver(false)
        put(e.dataTransfer.files[0])
      }}
      onPaste={(e) => put(e.clipboardData.files[0])}
    >
      {list.map((p) => (
        <OnePicture key={p.id} p={p} ties={ties} />
      ))}
      <p className="faint">
        {list.length === 0 ? 'Drop a picture of its screen here, or ' : 'Drop another picture here, or '}
        <button type="button" className="quiet" disabled={busy} onClick={() => field.current?.click()}>
          pick one
        </button>
        . PNG, JPEG or GIF, 4 MB at most; what else its file holds is not kept.
        <input
          ref={field}
          type="file"
          hidden
          aria-label="Drop a picture of its screen here, or pick one"
          accept="image/png,image/jpeg,image/gif"
          onChange={(e) => {
            put(e.target.files?.[0])
            e.target.value = ''
          }}
        />
      </p>
      {error && <p className="warn">{error.message}</p>}
    </section>
  )
}
