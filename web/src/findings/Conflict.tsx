import { Button } from '@chakra-ui/react'
import type { Finding, Patch } from '../api/types'
import { draftOf, fields, patchOf, pickOf, type Draft } from './draft'

/** Tells the second of two people who save what the first made of it; nothing is lost. */
export function Conflict({
  theirs,
  mine: d,
  changed,
  onSave,
  onTake,
}: {
  theirs: Finding
  mine: Draft
  /** The fields that were changed here. */
  changed: string[]
  onSave: (p: Patch) => void
  onTake: () => void
}) {
  const there = draftOf(theirs)
  return (
    <div className="conflict" role="alert">
      <p>
        <b>Somebody else changed this finding while you were writing.</b> Nothing is lost: yours is below, theirs is here.
      </p>
      <table>
        <tbody>
          {fields
            .filter((k) => there[k] !== d[k])
            .map((k) => (
              <tr key={k}>
                <th>{k}</th>
                <td>theirs: {there[k] || '(empty)'}</td>
                <td>yours: {d[k] || '(empty)'}</td>
              </tr>
            ))}
        </tbody>
      </table>
      <p>
        <Button size="xs" onClick={() => onSave(patchOf(there, d))}>
          Save mine over theirs
        </Button>{' '}
        <Button size="xs" className="outline" onClick={() => onSave(patchOf(there, { ...there, ...pickOf(d, changed) }))}>
          Save only what I changed
        </Button>{' '}
        <Button size="xs" className="outline" onClick={onTake}>
          Take theirs
        </Button>
      </p>
    </div>
  )
}
