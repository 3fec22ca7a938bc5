import { useCallback, useMemo } from 'react'
import { useAddPicture, useChangePicture } from '../api/changes'
import api, { answer } from '../api/client'
import type { PictureBox, ScreenPicture } from '../api/types'
import type { Tools } from './tools'

/** Pictures of screens, and the boxes in them; each step can be taken back while nobody has gone on from it. */
export function usePictureSteps({ id, person, say, push }: Tools) {
  const { mutateAsync: add } = useAddPicture(id)
  const { mutateAsync: put } = useChangePicture(id)
  /** How a picture that was changed is put back: only where it is still as this step left it. */
  const back = useCallback(
    (name: string, left: ScreenPicture, boxes: PictureBox[], gone: boolean) => async () => {
      if (!gone && left.version > 1) {
        const now = await answer(
          api.GET('/api/codebases/{id}/pictures', { params: { path: { id }, query: { at: left.path, name: left.name } } }),
        )
        const there = now.pictures.find((p) => p.id === left.id)
        if (there && there.version !== left.version) {
          say({ text: 'Somebody has changed this picture since; it is left as it is.', warn: true })
          return
        }
      }
      await put({ picture: left.id, boxes, version: left.version, gone, by: person })
      say({ text: `Taken back: ${name}` })
    },
    [id, person, put, say],
  )
  const addPicture = useCallback(
    async (at: string, name: string, file: Blob) => {
      const made = await add({ at, name, by: person, file })
      const text = `A picture of ${name}`
      push(text, back(text, made, [], true))
      say({ text, undo: true })
    },
    [add, back, person, push, say],
  )
  const changePicture = useCallback(
    async (p: ScreenPicture, boxes: PictureBox[], gone = false) => {
      const made = await put({ picture: p.id, boxes, version: p.version, gone, by: person })
      const text = gone ? `Took away a picture of ${p.name}` : `Boxes in a picture of ${p.name}`
      push(text, back(text, made, p.boxes, false))
      say({ text, undo: true })
    },
    [back, person, push, put, say],
  )
  return useMemo(() => ({ addPicture, changePicture }), [addPicture, changePicture])
}
